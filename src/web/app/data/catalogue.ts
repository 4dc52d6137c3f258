import { Injectable, inject } from '@angular/core';
import { filter, shareReplay, type Observable } from 'rxjs';
import { ENDPOINTS } from '#contracts/http';
import type { Category } from '#contracts/common';
import type { ExchangeRate } from '#core/rules/exchange-rates';
import type { Rubric } from '#core/rules/rubric';
import type { RankingInputs, RankingOnDay } from '#contracts/ranking';
import type { RubricVersion } from '#contracts/rubric';
import type { GivenPoints, SpecimenRow, SpecimenSheet } from '#contracts/specimen';
import type { Segments } from '#contracts/segments';
import type { NewRelation } from '#contracts/relation';
import type { NewCounting, NewVariant } from '#contracts/variant';
import type { Session } from '#contracts/session';
import type { NewSheetEntries } from '#contracts/sheet';
import type { TakePage } from '#contracts/take-page';
import type { Protocol } from '#contracts/protocol';
import type { PointsInput, PriceInput } from '#contracts/run-document';
import { Api } from './api';
import { Events } from './events';
import { live } from './live';
import type { Loaded } from './loaded';

/** The catalogue as the pages read it; every stream asks again when the server says that something changed. */
@Injectable({ providedIn: 'root' })
export class CatalogueData {
  private readonly api = inject(Api);
  private readonly events = inject(Events);

  private readonly changes = [
    this.events.events.pipe(filter((event) => event.type === 'specimen' || event.type === 'rules')),
    this.events.reconnects,
  ] as const;

  readonly specimens: Observable<Loaded<SpecimenRow[]>> = live(
    () => this.api.call(ENDPOINTS.specimens, {}),
    ...this.changes,
  ).pipe(shareReplay({ bufferSize: 1, refCount: true }));
  readonly sessions: Observable<Loaded<Session[]>> = live(
    () => this.api.call(ENDPOINTS.sessions, {}),
    ...this.changes,
  ).pipe(shareReplay({ bufferSize: 1, refCount: true }));
  readonly protocols: Observable<Loaded<Protocol[]>> = live(() => this.api.call(ENDPOINTS.protocols, {}));

  /** The current rubric of every kind that has one. */
  readonly rubrics: Observable<Loaded<Rubric[]>> = live(
    () => this.api.call(ENDPOINTS.rubrics, {}),
    ...this.changes,
  ).pipe(shareReplay({ bufferSize: 1, refCount: true }));

  sheet(id: string): Observable<Loaded<SpecimenSheet>> {
    return live(() => this.api.call(ENDPOINTS.specimen, { params: { id } }), ...this.changes);
  }

  take(id: string): Observable<Loaded<TakePage>> {
    return live(() => this.api.call(ENDPOINTS.take, { params: { id } }), ...this.changes);
  }

  chooseSegments(id: string, segments: Segments | null): Observable<TakePage> {
    return this.api.call(ENDPOINTS.chooseSegments, { params: { id }, body: { segments } });
  }

  rankingInputs(category: Category): Observable<Loaded<RankingInputs>> {
    return live(() => this.api.call(ENDPOINTS.rankingInputs, { params: { category } }), ...this.changes);
  }

  /** What one euro came to on each day, oldest first. */
  readonly rates: Observable<Loaded<ExchangeRate[]>> = live(() => this.api.call(ENDPOINTS.rates, {}), ...this.changes);

  noteRates(rates: readonly ExchangeRate[]): Observable<unknown> {
    return this.api.call(ENDPOINTS.noteRates, { body: { rates: [...rates] } });
  }

  /** All versions of the rules of a kind, newest first. */
  rubricVersions(category: Category): Observable<Loaded<RubricVersion[]>> {
    return live(() => this.api.call(ENDPOINTS.rubricVersions, { params: { category } }), ...this.changes);
  }

  saveRubric(rubric: Rubric): Observable<RubricVersion> {
    return this.api.call(ENDPOINTS.saveRubric, { body: rubric });
  }

  /** What units of a kind were ranked by on a day. */
  rankingOnDay(category: Category, day: string): Observable<Loaded<RankingOnDay>> {
    return live(() => this.api.call(ENDPOINTS.rankingOnDay, { params: { category, day } }), ...this.changes);
  }

  givePoints(id: string, points: PointsInput): Observable<unknown> {
    return this.api.call(ENDPOINTS.givePoints, { params: { id }, body: points });
  }

  fillSheet(id: string, body: NewSheetEntries): Observable<unknown> {
    return this.api.call(ENDPOINTS.fillSheet, { params: { id }, body });
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

  addRelation(id: string, relation: NewRelation): Observable<unknown> {
    return this.api.call(ENDPOINTS.addRelation, { params: { id }, body: relation });
  }

  addVariant(id: string, variant: NewVariant): Observable<{ id: string }> {
    return this.api.call(ENDPOINTS.addVariant, { params: { id }, body: variant });
  }

  countVariant(id: string, counts: NewCounting['counts']): Observable<unknown> {
    return this.api.call(ENDPOINTS.countVariant, { params: { id }, body: { counts } });
  }

  endRelation(id: string): Observable<unknown> {
    return this.api.call(ENDPOINTS.endRelation, { params: { id } });
  }
}

/** The points that count: the newest of each criterion (the history comes newest first). */
export function currentPoints(history: readonly GivenPoints[]): ReadonlyMap<string, GivenPoints> {
  const newest = new Map<string, GivenPoints>();
  for (const points of history) if (!newest.has(points.criterion)) newest.set(points.criterion, points);
  return newest;
}
