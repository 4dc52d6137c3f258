import { Injectable, inject, signal } from '@angular/core';
import { catchError, filter, of, shareReplay, tap, type Observable } from 'rxjs';
import type { KindDocument } from '#core/gear/kind-document';
import { registerKinds } from '#core/gear/kinds';
import { ENDPOINTS } from '#contracts/http';
import type { Kind } from '#contracts/kind';
import { Api } from './api';
import { Events } from './events';
import { live } from './live';
import type { Loaded } from './loaded';

/** Kinds of gear as a person has them. They are made known to the page before anything is shown that names one. */
@Injectable({ providedIn: 'root' })
export class KindData {
  private readonly api = inject(Api);
  private readonly events = inject(Events);
  /** What a person has made of kinds, as it is known to the page. */
  readonly documents = signal<readonly KindDocument[]>([]);

  readonly kinds: Observable<Loaded<Kind[]>> = live(
    () => this.ask(),
    this.events.events.pipe(filter((event) => event.type === 'rules' || event.type === 'specimen')),
    this.events.reconnects,
  ).pipe(shareReplay({ bufferSize: 1, refCount: true }));

  constructor() {
    // At once, so that they are known when the lists that name them are asked for again.
    this.events.events.pipe(filter((event) => event.type === 'rules')).subscribe(() => {
      this.ask()
        .pipe(catchError(() => of([])))
        .subscribe();
    });
  }

  /** Before the first screen. Where nobody answers, the kinds that ship are known, and the screen says what is wrong. */
  start(): Observable<unknown> {
    return this.ask().pipe(catchError(() => of(null)));
  }

  /** Saves a kind; the answer is known to the page when it comes. */
  save(document: KindDocument): Observable<Kind> {
    return this.api.call(ENDPOINTS.saveKind, { body: document }).pipe(
      tap((kind) => {
        this.know([...this.documents().filter((d) => d.id !== kind.document.id), kind.document]);
      }),
    );
  }

  private ask(): Observable<Kind[]> {
    return this.api
      .call(ENDPOINTS.kinds, {})
      .pipe(tap((kinds) => this.know(kinds.filter((k) => k.isSaved).map((k) => k.document))));
  }

  private know(documents: readonly KindDocument[]): void {
    registerKinds(documents);
    this.documents.set(documents);
  }
}
