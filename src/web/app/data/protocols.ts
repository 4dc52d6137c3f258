import { Injectable, inject } from '@angular/core';
import { type Observable } from 'rxjs';
import { ENDPOINTS } from '#contracts/http';
import type { Bridges, PhonemeBalanceJson, ProtocolVersion } from '#contracts/protocol-page';
import { Api } from './api';
import type { Loaded } from './loaded';
import { Events } from './events';
import { live } from './live';

/** Protocols and their versions. */
@Injectable({ providedIn: 'root' })
export class ProtocolData {
  private readonly api = inject(Api);
  private readonly events = inject(Events);

  versions(): Observable<Loaded<ProtocolVersion[]>> {
    return live(() => this.api.call(ENDPOINTS.protocolVersions, {}), this.events.reconnects);
  }

  save(document: unknown): Observable<ProtocolVersion> {
    return this.api.call(ENDPOINTS.saveProtocol, { body: { document } });
  }

  bridges(slug: string, from: number, to: number): Observable<Bridges> {
    return this.api.call(ENDPOINTS.bridges, { params: { slug, from: String(from), to: String(to) } });
  }

  phonemes(text: string): Observable<PhonemeBalanceJson> {
    return this.api.call(ENDPOINTS.countPhonemes, { body: { text } });
  }
}
