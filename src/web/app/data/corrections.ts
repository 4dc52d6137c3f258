import { Injectable, inject } from '@angular/core';
import { filter, type Observable } from 'rxjs';
import type { Change, Correction } from '#contracts/correction';
import { ENDPOINTS } from '#contracts/http';
import type { NewRemoval, Removable, Removal, RemovalPreview } from '#contracts/removal';
import type { UnitAnswer } from '#contracts/unit-answer';
import { Api } from './api';
import { Events } from './events';
import { live } from './live';
import type { Loaded } from './loaded';

/** Corrections of what was brought in, and their way back. */
@Injectable({ providedIn: 'root' })
export class CorrectionData {
  private readonly api = inject(Api);
  private readonly events = inject(Events);

  ofUnit(id: string): Observable<Loaded<Correction[]>> {
    return live(
      () => this.api.call(ENDPOINTS.correctionsOfUnit, { params: { id } }),
      this.events.events.pipe(filter((e) => e.type === 'specimen' && e.specimenId === id)),
      this.events.reconnects,
    );
  }

  /** All of them, those of sessions, tests and rigs too. */
  all(): Observable<Loaded<Correction[]>> {
    return live(() => this.api.call(ENDPOINTS.corrections, {}), this.events.events, this.events.reconnects);
  }

  correct(change: Change, reason = ''): Observable<{ id: string }> {
    return this.api.call(ENDPOINTS.correct, { body: { change, reason } });
  }

  undo(id: string): Observable<unknown> {
    return this.api.call(ENDPOINTS.undoCorrection, { params: { id } });
  }

  /** What deleting something would take with it. */
  previewRemoval(what: Removable, id: string): Observable<RemovalPreview> {
    return this.api.call(ENDPOINTS.previewRemoval, { params: { what, id } });
  }

  remove(removal: NewRemoval): Observable<Removal> {
    return this.api.call(ENDPOINTS.remove, { body: removal });
  }

  /** Lines of what was deleted for good. */
  removals(): Observable<Loaded<Removal[]>> {
    return live(() => this.api.call(ENDPOINTS.removals, {}), this.events.events, this.events.reconnects);
  }

  answersOfUnit(id: string): Observable<Loaded<UnitAnswer[]>> {
    return live(
      () => this.api.call(ENDPOINTS.answersOfUnit, { params: { id } }),
      this.events.events.pipe(filter((e) => e.type === 'specimen' && e.specimenId === id)),
      this.events.reconnects,
    );
  }
}
