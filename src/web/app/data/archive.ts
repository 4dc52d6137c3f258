import { Injectable, inject } from '@angular/core';
import { filter, merge, Subject, type Observable } from 'rxjs';
import type { ArchiveState } from '#contracts/archive';
import type { Device } from '#contracts/devices';
import { ENDPOINTS } from '#contracts/http';
import { Api } from './api';
import { Events } from './events';
import { live } from './live';
import type { Loaded } from './loaded';

/** What lies in the archive, what is wrong with it, and who else gets at it. */
@Injectable({ providedIn: 'root' })
export class ArchiveData {
  private readonly api = inject(Api);
  private readonly events = inject(Events);
  private readonly revoked = new Subject<void>();

  /** Asked again when something is set aside, and when a job (the reading of all clips, for one) moves on. */
  readonly state: Observable<Loaded<ArchiveState>> = live(
    () => this.api.call(ENDPOINTS.archive, {}),
    this.events.events.pipe(filter((event) => event.type === 'archive' || event.type === 'jobs')),
    this.events.reconnects,
  );
  readonly devices: Observable<Loaded<Device[]>> = live(
    () => this.api.call(ENDPOINTS.devices, {}),
    merge(this.revoked, this.events.reconnects),
  );

  check(): Observable<ArchiveState> {
    return this.api.call(ENDPOINTS.checkArchive, {});
  }

  revoke(id: string): Observable<unknown> {
    return this.api.call(ENDPOINTS.revokeDevice, { params: { id } });
  }

  /** After a device was shut out. */
  askAgain(): void {
    this.revoked.next();
  }
}
