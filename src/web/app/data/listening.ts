import { Injectable, inject } from '@angular/core';
import { filter, type Observable } from 'rxjs';
import type { z } from 'zod';
import type { CompareCandidate, CompareRequest, CompareSet, CompareTable, LaneDifference } from '#contracts/compare';
import { ENDPOINTS } from '#contracts/http';
import type { Category } from '#contracts/common';
import type { keepReturnedSchema, ReturnedAnswer } from '#contracts/blind-pack';
import type { Attribute, NewTestDraft, performerAnswerSchema, TestPage, TestRow } from '#contracts/listening';
import type { PanelCommandDraft, PanelPage } from '#contracts/live-panel';
import type {
  placeAnswerSchema,
  placeRequestSchema,
  placeUndoSchema,
  Placing,
  Scale,
  ScaleRequest,
} from '#contracts/scale';
import { Api } from './api';
import { Events } from './events';
import { live } from './live';
import type { Loaded } from './loaded';

/** A step that clips exist of. */
export interface HeardStep {
  readonly category: Category;
  readonly step: string;
  readonly title: string;
  readonly units: number;
}

/** Comparing, listening tests and the scale, as the operator's pages ask for them. */
@Injectable({ providedIn: 'root' })
export class ListeningData {
  private readonly api = inject(Api);
  private readonly events = inject(Events);
  private readonly changes = this.events.events.pipe(filter((e) => e.type === 'listening'));
  private readonly unitChanges = this.events.events.pipe(filter((e) => e.type === 'specimen'));

  readonly tests: Observable<Loaded<TestRow[]>> = live(
    () => this.api.call(ENDPOINTS.listeningTests, {}),
    this.changes,
    this.events.reconnects,
  );

  test(id: string): Observable<Loaded<TestPage>> {
    return live(() => this.testNow(id), this.changes.pipe(filter((e) => e.testId === id)), this.events.reconnects);
  }

  /** The page of a test as it is at this moment. */
  testNow(id: string): Observable<TestPage> {
    return this.api.call(ENDPOINTS.listeningTest, { params: { id } });
  }

  steps(): Observable<HeardStep[]> {
    return this.api.call(ENDPOINTS.compareSteps, {});
  }

  candidates(category: Category, step: string): Observable<CompareCandidate[]> {
    return this.api.call(ENDPOINTS.compareCandidates, { params: { category, step } });
  }

  table(request: CompareRequest): Observable<CompareTable> {
    return this.api.call(ENDPOINTS.compareTable, { body: request });
  }

  difference(zero: string, other: string): Observable<LaneDifference> {
    return this.api.call(ENDPOINTS.compareDifference, { params: { zero, other } });
  }

  sets(): Observable<CompareSet[]> {
    return this.api.call(ENDPOINTS.compareSets, {});
  }

  set(id: string): Observable<CompareSet> {
    return this.api.call(ENDPOINTS.compareSet, { params: { id } });
  }

  keep(name: string, request: CompareRequest): Observable<CompareSet> {
    return this.api.call(ENDPOINTS.keepCompareSet, { body: { ...request, name } });
  }

  removeSet(id: string, removed: boolean): Observable<unknown> {
    return this.api.call(ENDPOINTS.removeCompareSet, { params: { id }, body: { removed } });
  }

  create(test: NewTestDraft): Observable<TestPage> {
    return this.api.call(ENDPOINTS.newListeningTest, { body: test });
  }

  prepareAgain(id: string): Observable<unknown> {
    return this.api.call(ENDPOINTS.prepareTest, { params: { id } });
  }

  close(id: string): Observable<TestPage> {
    return this.api.call(ENDPOINTS.closeTest, { params: { id } });
  }

  reveal(id: string): Observable<TestPage> {
    return this.api.call(ENDPOINTS.revealTest, { params: { id } });
  }

  leaveOut(id: string, sitting: string, reason: string | null): Observable<TestPage> {
    return this.api.call(ENDPOINTS.leaveOutSitting, { params: { id, sitting }, body: { reason } });
  }

  performed(id: string, answer: z.input<typeof performerAnswerSchema>): Observable<TestPage> {
    return this.api.call(ENDPOINTS.performerAnswer, { params: { id }, body: answer });
  }

  panel(id: string): Observable<Loaded<PanelPage>> {
    const ask = () => this.api.call(ENDPOINTS.livePanel, { params: { id } });
    return live(ask, this.changes.pipe(filter((e) => e.testId === id)), this.events.reconnects);
  }

  lead(id: string, command: PanelCommandDraft): Observable<PanelPage> {
    return this.api.call(ENDPOINTS.leadPanel, { params: { id }, body: command });
  }

  readReturned(id: string, text: string): Observable<{ answers: ReturnedAnswer[] }> {
    return this.api.call(ENDPOINTS.readReturned, { params: { id }, body: { text } });
  }

  keepReturned(id: string, body: z.input<typeof keepReturnedSchema>): Observable<{ kept: number; skipped: number }> {
    return this.api.call(ENDPOINTS.keepReturned, { params: { id }, body });
  }

  sameListener(listener: string, as: string | null): Observable<unknown> {
    return this.api.call(ENDPOINTS.sameListener, { params: { id: listener }, body: { as } });
  }

  forgetAbout(listener: string): Observable<unknown> {
    return this.api.call(ENDPOINTS.forgetAbout, { params: { id: listener } });
  }

  addresses(): Observable<{ addresses: string[] }> {
    return this.api.call(ENDPOINTS.listenAddresses, {});
  }

  scale(request: ScaleRequest): Observable<Loaded<Scale>> {
    return live(() => this.api.call(ENDPOINTS.scale, { body: request }), this.unitChanges, this.events.reconnects);
  }

  importAnswers(csv: string, attribute: Attribute, category: Category) {
    return this.api.call(ENDPOINTS.importAnswers, { body: { csv, attribute, category } });
  }

  place(id: string, request: z.input<typeof placeRequestSchema>): Observable<Placing> {
    return this.api.call(ENDPOINTS.place, { params: { id }, body: request });
  }

  placeAnswer(id: string, answer: z.input<typeof placeAnswerSchema>): Observable<Placing> {
    return this.api.call(ENDPOINTS.placeAnswer, { params: { id }, body: answer });
  }

  placeUndo(id: string, request: z.input<typeof placeUndoSchema>): Observable<Placing> {
    return this.api.call(ENDPOINTS.placeUndo, { params: { id }, body: request });
  }
}
