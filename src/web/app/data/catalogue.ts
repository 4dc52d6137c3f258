import { Injectable, inject } from '@angular/core';
import {
  auditTime,
  catchError,
  filter,
  map,
  merge,
  of,
  shareReplay,
  startWith,
  switchMap,
  type Observable,
} from 'rxjs';
import { ENDPOINTS } from '#contracts/http';
import type { Category } from '#contracts/common';
import type { Problem } from '#contracts/problem';
import type { RankingInputs } from '#contracts/ranking';
import type { GivenPoints, SpecimenRow, SpecimenSheet } from '#contracts/specimen';
import type { Segments } from '#contracts/segments';
import type { Session } from '#contracts/session';
import type { TakePage } from '#contracts/take-page';
import type { Protocol } from '#contracts/protocol';
import type { PointsInput, PriceInput } from '#contracts/run-document';
import { Api, problemOf } from './api';
import { Events } from './events';

/** A thing that was asked for: still on its way, there, or refused. */
export type Loaded<T> =
  { readonly value: T; readonly problem: null } | { readonly value: null; readonly problem: Problem | null };

export const LOADING: Loaded<never> = { value: null, problem: null };

/** Many changes in a row are answered by one question. */
const SETTLE_MS = 250;

/** The catalogue as the pages read it; every stream asks again when the server says that something changed. */
@Injectable({ providedIn: 'root' })
export class CatalogueData {
  private readonly api = inject(Api);
  private readonly events = inject(Events);

  private readonly changes = merge(
    this.events.events.pipe(filter((event) => event.type === 'specimen')),
    this.events.reconnects,
  ).pipe(auditTime(SETTLE_MS));

  readonly specimens: Observable<Loaded<SpecimenRow[]>> = this.live(() => this.api.call(ENDPOINTS.specimens, {})).pipe(
    shareReplay({ bufferSize: 1, refCount: true }),
  );
  readonly sessions: Observable<Loaded<Session[]>> = this.live(() => this.api.call(ENDPOINTS.sessions, {})).pipe(
    shareReplay({ bufferSize: 1, refCount: true }),
  );
  readonly protocols: Observable<Loaded<Protocol[]>> = this.once(() => this.api.call(ENDPOINTS.protocols, {}));

  sheet(id: string): Observable<Loaded<SpecimenSheet>> {
    return this.live(() => this.api.call(ENDPOINTS.specimen, { params: { id } }));
  }

  take(id: string): Observable<Loaded<TakePage>> {
    return this.live(() => this.api.call(ENDPOINTS.take, { params: { id } }));
  }

  chooseSegments(id: string, segments: Segments | null): Observable<TakePage> {
    return this.api.call(ENDPOINTS.chooseSegments, { params: { id }, body: { segments } });
  }

  rankingInputs(category: Category): Observable<Loaded<RankingInputs>> {
    return this.live(() => this.api.call(ENDPOINTS.rankingInputs, { params: { category } }));
  }

  givePoints(id: string, points: PointsInput): Observable<unknown> {
    return this.api.call(ENDPOINTS.givePoints, { params: { id }, body: points });
  }

  notePrice(id: string, price: PriceInput): Observable<unknown> {
    return this.api.call(ENDPOINTS.notePrice, { params: { id }, body: price });
  }

  setOnDesk(id: string, onDesk: boolean): Observable<unknown> {
    return this.api.call(ENDPOINTS.setCustody, { params: { id }, body: { onDesk } });
  }

  retry(analysisId: string): Observable<unknown> {
    return this.api.call(ENDPOINTS.retryAnalysis, { params: { id: analysisId } });
  }

  private live<T>(ask: () => Observable<T>): Observable<Loaded<T>> {
    return this.changes.pipe(
      startWith(null),
      switchMap(() => this.once(ask)),
    );
  }

  private once<T>(ask: () => Observable<T>): Observable<Loaded<T>> {
    return ask().pipe(
      map((value): Loaded<T> => ({ value, problem: null })),
      catchError((error: unknown) => of<Loaded<T>>({ value: null, problem: problemOf(error) })),
    );
  }
}

/** The points that count: the newest of each criterion (the history comes newest first). */
export function currentPoints(history: readonly GivenPoints[]): ReadonlyMap<string, GivenPoints> {
  const newest = new Map<string, GivenPoints>();
  for (const points of history) if (!newest.has(points.criterion)) newest.set(points.criterion, points);
  return newest;
}
