import { computed, signal } from '@angular/core';
import type { Observable } from 'rxjs';
import type { Problem } from '#contracts/problem';
import type { Review, ReviewDocument } from '#contracts/review';
import { textChanges } from '#domain/review/edition-changes';
import { problemOf } from '../../data/api';
import { forgetDraft, forgetOvertaken, keepDraft, keptDraft, overtakenDraft } from './kept-draft';
import { draftProblems, savable } from './review-draft';

/** Typing is over for so long before it is saved. */
export const PAUSE_MS = 900;

/** saved → waiting (something was written) → saving → saved; refused where it cannot be saved as it is. */
export type WritingState = 'saved' | 'waiting' | 'saving' | 'refused';

/** Saves a text that goes on from a revision. */
export type SaveReview = (id: string, revision: number, document: ReviewDocument) => Observable<Review>;

/**
 * A review as it is written, from a letter to its being saved. What is written is kept in the browser until the server has
 * it; what the server says meanwhile does not touch it. It knows no screen.
 */
export class ReviewWriting {
  /** As the server has it now. */
  readonly review = signal<Review | null>(null);
  /** As it is written here; null before it is there. */
  readonly draft = signal<ReviewDocument | null>(null);
  readonly state = signal<WritingState>('saved');
  readonly problem = signal<Problem | null>(null);
  /** What was written here and never saved, since the review was saved elsewhere before. */
  readonly overtaken = signal<ReviewDocument | null>(null);
  readonly problems = computed(() => {
    const draft = this.draft();
    return draft ? draftProblems(draft) : [];
  });
  /** What going on from the overtaken text would change, in words. */
  readonly overtakenChanges = computed(() => {
    const [draft, overtaken] = [this.draft(), this.overtaken()];
    return draft && overtaken ? textChanges(draft, overtaken).map((c) => c.text) : [];
  });
  private timer: ReturnType<typeof setTimeout> | null = null;
  /** What waits for everything to be saved. */
  private afterSaving: ((review: Review) => void)[] = [];

  /**
   * @param send - saves it
   * @param stop - whether a field refuses what was typed; it takes the reader there
   */
  constructor(
    private readonly send: SaveReview,
    private readonly stop: () => boolean,
  ) {}

  /** What the server says: all of it where nothing is being written, what stands beside the text otherwise. */
  take(value: Review): void {
    const known = this.review();
    const isOther = known?.id !== value.id;
    if (isOther || this.state() === 'saved') {
      this.review.set(value);
      if (isOther || known.revision !== value.revision) this.begin(value);
    } else this.review.set({ ...value, revision: known.revision });
  }

  /** What was saved, or what was written here after it and did not get so far. */
  private begin(value: Review): void {
    const kept = keptDraft(value, value.revision);
    this.overtaken.set(overtakenDraft(value));
    this.draft.set(kept ?? value.document);
    if (kept) this.saveSoon();
  }

  change(part: Partial<ReviewDocument>): void {
    this.draft.update((d) => d && { ...d, ...part });
    const [draft, review] = [this.draft(), this.review()];
    if (draft && review) keepDraft(review, review.revision, draft);
    this.saveSoon();
  }

  private saveSoon(): void {
    // What is on its way is answered first; what was written meanwhile follows it.
    if (this.state() !== 'saving') this.state.set('waiting');
    this.restart();
  }

  private restart(): void {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = setTimeout(() => this.save(), PAUSE_MS);
  }

  /**
   * Saves what is written; what changes meanwhile is saved after it.
   *
   * @param then - once everything that is written is saved; not where it is refused
   */
  save(then?: (review: Review) => void): void {
    if (then) this.afterSaving.push(then);
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    const [draft, review] = [this.draft(), this.review()];
    if (!draft || !review || this.state() === 'saving') return;
    if (this.state() === 'saved') {
      this.allSaved(review);
      return;
    }
    if (this.problems().length > 0 || this.stop()) {
      this.refuse();
      return;
    }
    this.state.set('saving');
    this.send(review.id, review.revision, savable(draft)).subscribe({
      next: (saved) => this.wasSaved(draft, saved),
      error: (error: unknown) => {
        this.problem.set(problemOf(error));
        this.refuse();
      },
    });
  }

  private refuse(): void {
    this.afterSaving = [];
    this.state.set('refused');
  }

  private wasSaved(sent: ReviewDocument, saved: Review): void {
    this.problem.set(null);
    this.review.set(saved);
    const now = this.draft();
    if (now && now !== sent) {
      keepDraft(saved, saved.revision, now);
      this.state.set('waiting');
      if (this.afterSaving.length > 0) this.save();
      else this.restart();
      return;
    }
    forgetDraft(saved);
    this.state.set('saved');
    this.allSaved(saved);
  }

  private allSaved(review: Review): void {
    const waiting = this.afterSaving;
    this.afterSaving = [];
    for (const then of waiting) then(review);
  }

  /** Goes on from the text that was overtaken; what was saved elsewhere is in the revision before. */
  takeOvertaken(): void {
    const overtaken = this.overtaken();
    if (overtaken === null) return;
    this.change(overtaken);
    this.dropOvertaken();
  }

  dropOvertaken(): void {
    const review = this.review();
    if (review) forgetOvertaken(review);
    this.overtaken.set(null);
  }

  /** It was thrown away: nothing of it is kept. */
  forget(): void {
    const review = this.review();
    if (review) forgetDraft(review);
    this.dropOvertaken();
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    this.state.set('saved');
    this.draft.set(null);
  }

  /** The screen goes: what waits is saved at once. */
  leave(): void {
    if (this.timer !== null) this.save();
  }
}
