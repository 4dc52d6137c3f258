import { Injectable, inject } from '@angular/core';
import { Subject, filter, merge, tap, type Observable } from 'rxjs';
import type { Character } from '#contracts/character';
import { ENDPOINTS } from '#contracts/http';
import type { HeldReview, House, Review, ReviewDocument, ReviewOfUnit, ReviewRow } from '#contracts/review';
import type { SiteReportJson } from '#contracts/site';
import { Api } from './api';
import { Events } from './events';
import { live } from './live';
import type { Loaded } from './loaded';

/** Reviews and how this desk publishes. */
@Injectable({ providedIn: 'root' })
export class ReviewData {
  private readonly api = inject(Api);
  private readonly events = inject(Events);
  private readonly changed = new Subject<void>();
  /** Facts that lines rest on. */
  private readonly facts = merge(
    this.events.events.pipe(filter((e) => e.type === 'specimen' || e.type === 'rules')),
    this.events.reconnects,
    this.changed,
  );

  readonly reviews: Observable<Loaded<ReviewRow[]>> = live(() => this.api.call(ENDPOINTS.reviews, {}), this.facts);
  readonly house: Observable<Loaded<House>> = live(() => this.api.call(ENDPOINTS.house, {}), this.changed);

  /** Reviews of one unit. */
  of(unit: string): Observable<Loaded<ReviewOfUnit[]>> {
    return live(() => this.api.call(ENDPOINTS.reviewsOfUnit, { params: { id: unit } }), this.facts);
  }

  /** Some reviews, held against today's facts. */
  held(ids: readonly string[]): Observable<Loaded<HeldReview[]>> {
    return live(() => this.api.call(ENDPOINTS.heldReviews, { params: { ids: ids.join(',') } }), this.facts);
  }

  /** Words for a unit and what it is for. */
  character(unit: string): Observable<Loaded<Character>> {
    return live(() => this.api.call(ENDPOINTS.unitCharacter, { params: { id: unit } }), this.facts);
  }

  review(id: string): Observable<Loaded<Review>> {
    return live(() => this.api.call(ENDPOINTS.review, { params: { id } }), this.facts);
  }

  open(unit: string): Observable<{ id: string }> {
    return this.api.call(ENDPOINTS.openReview, { body: { unit } });
  }

  save(id: string, revision: number, document: ReviewDocument): Observable<Review> {
    return this.api.call(ENDPOINTS.saveReview, { params: { id }, body: { revision, document } });
  }

  publish(id: string, revision: number): Observable<Review> {
    return this.api
      .call(ENDPOINTS.publishReview, { params: { id }, body: { revision } })
      .pipe(tap(() => this.changed.next()));
  }

  /** How large one file of an edition would be. */
  pageSize(edition: string, clips: string): Observable<{ bytes: number; most: number }> {
    return this.api.call(ENDPOINTS.editionSize, { params: { id: edition, clips } });
  }

  discard(id: string): Observable<unknown> {
    return this.api.call(ENDPOINTS.discardReview, { params: { id } });
  }

  /** Writes the site into the data folder. */
  publishSite(): Observable<SiteReportJson> {
    return this.api.call(ENDPOINTS.publishSite, { body: { out: null, clips: 'flac' } });
  }

  saveHouse(house: House): Observable<House> {
    return this.api.call(ENDPOINTS.saveHouse, { body: house }).pipe(tap(() => this.changed.next()));
  }
}
