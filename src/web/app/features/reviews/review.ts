import { ChangeDetectionStrategy, Component, HostListener, computed, effect, inject, input, signal, untracked, type OnDestroy } from '@angular/core'; // prettier-ignore
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { switchMap } from 'rxjs';
import type { Problem } from '#contracts/problem';
import { AFTERWARDS, OBTAINED, type Proposal, type Review as ReviewAnswer, type ReviewDocument } from '#contracts/review'; // prettier-ignore
import { Breadcrumb } from '../../data/breadcrumb';
import { problemOf } from '../../data/api';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { ReviewData } from '../../data/reviews';
import { Saving } from '../../data/saving';
import { ChoiceField } from '../../ui/field/choice-field';
import { CurrencyField } from '../../ui/field/currency-field';
import { NumberField } from '../../ui/field/number-field';
import { priceSheet } from '../../ui/field/number-sheets';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { MarkdownField } from '../../ui/markdown-field';
import { ProblemBox } from '../../ui/problem-box';
import { AlternativeLines } from './alternative-lines';
import { DeckPicker } from './deck-picker';
import { EditionList } from './edition-list';
import { forgetDraft, keepDraft, keptDraft } from './kept-draft';
import { LineList } from './line-list';
import { LineMarkNote } from './line-mark';
import { ProposalsPanel } from './proposals-panel';
import { QuotationLines } from './quotation-lines';
import { changedAt, draftProblems, markOf, renewed, savable, withProposal, without } from './review-draft';
import { UseLines } from './use-lines';

/** Nothing is filled in yet: it is refused where it is saved. */
const NO_AMOUNT = 0;
/** Typing is over for so long before it is saved. */
const PAUSE_MS = 900;

/** A review as it is written: what a person says, what rules propose, what was published of it. */
@Component({
  selector: 'sd-review',
  imports: [AlternativeLines, Button, ChoiceField, CurrencyField, DeckPicker, EditionList, LineList, LineMarkNote, MarkdownField, NumberField, ProblemBox, ProposalsPanel, RouterLink, TextField, UseLines, QuotationLines], // prettier-ignore
  templateUrl: './review.html',
  styleUrl: './review.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Review implements OnDestroy {
  readonly id = input.required<string>();

  private readonly data = inject(ReviewData);
  private readonly router = inject(Router);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();

  private readonly loaded = toSignal(toObservable(this.id).pipe(switchMap((id) => this.data.review(id))), {
    initialValue: LOADING,
  });
  private readonly house = toSignal(this.data.house, { initialValue: LOADING });
  protected readonly problem = computed<Problem | null>(() => this.saveProblem() ?? this.loaded().problem);
  private readonly saveProblem = signal<Problem | null>(null);
  /** As the server has it now. */
  protected readonly review = signal<ReviewAnswer | null>(null);
  /** As it is written here; null before it is there. */
  protected readonly draft = signal<ReviewDocument | null>(null);
  protected readonly state = signal<'saved' | 'waiting' | 'saving' | 'refused'>('saved');
  protected readonly problems = computed(() => {
    const draft = this.draft();
    return draft ? draftProblems(draft) : [];
  });
  protected readonly uses = computed(() => {
    const category = this.review()?.unit.category;
    return (this.house().value?.uses ?? [])
      .filter((u) => u.kinds.length === 0 || u.kinds.includes(category ?? ''))
      .map((u) => u.name);
  });
  protected readonly stateWords = computed(
    () =>
      ({
        saved: 'Saved',
        waiting: 'Not saved yet',
        saving: 'Saving …',
        refused: 'Not saved: correct what is refused',
      })[this.state()],
  );
  protected readonly obtained = OBTAINED.map((value) => ({ label: value, value }));
  protected readonly afterwards = AFTERWARDS.map((value) => ({ label: value, value }));
  protected readonly markOf = markOf;
  protected readonly priceSheet = priceSheet;
  private timer: ReturnType<typeof setTimeout> | null = null;
  /** What waits for everything to be saved. */
  private afterSaving: ((review: ReviewAnswer) => void)[] = [];

  constructor() {
    const breadcrumb = inject(Breadcrumb);
    effect(() => {
      const { value } = this.loaded();
      if (value) untracked(() => this.take(value));
    });
    effect(() =>
      breadcrumb.crumbs.set([
        { label: 'Reviews', link: '/reviews' },
        { label: this.review()?.unit.name ?? '', link: null },
      ]),
    );
    inject(ScreenKeys).hints.set([{ keys: 'Ctrl S', does: 'Save at once' }]);
  }

  ngOnDestroy(): void {
    if (this.timer !== null) {
      clearTimeout(this.timer);
      this.save();
    }
  }

  @HostListener('window:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    if (event.key !== 's' || !(event.ctrlKey || event.metaKey)) return;
    event.preventDefault();
    this.save();
  }

  @HostListener('window:beforeunload', ['$event'])
  protected onLeave(event: BeforeUnloadEvent): void {
    if (this.state() !== 'saved') event.preventDefault();
  }

  protected change(part: Partial<ReviewDocument>): void {
    this.draft.update((d) => d && { ...d, ...part });
    const [draft, review] = [this.draft(), this.review()];
    if (draft && review) keepDraft(review, review.revision, draft);
    this.saveSoon();
  }

  private saveSoon(): void {
    this.state.set('waiting');
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = setTimeout(() => this.save(), PAUSE_MS);
  }

  protected takeProposal(proposal: Proposal): void {
    const draft = this.draft();
    if (draft) this.change(withProposal(draft, proposal));
  }

  protected startPrice(): void {
    this.change({ turningPrice: { amount: NO_AMOUNT, currency: 'EUR', text: '', restsOn: null } });
  }

  protected changePrice(part: { amount?: number | null; currency?: string; text?: string }): void {
    const price = this.draft()?.turningPrice;
    if (price)
      this.change({
        turningPrice: {
          ...price,
          ...part,
          amount: part.amount === undefined ? price.amount : (part.amount ?? NO_AMOUNT),
        },
      });
  }

  protected renewPrice(): void {
    const price = this.draft()?.turningPrice;
    const now = this.review()?.proposals.find((p) => p.part === 'turningPrice');
    if (price) this.change({ turningPrice: { ...renewed(price, this.review()?.proposals ?? []), ...now?.price } });
  }

  protected changeLink(at: number, part: { label?: string; address?: string }): void {
    const links = this.draft()?.links ?? [];
    this.change({ links: changedAt(links, at, { ...links[at], ...part }) });
  }

  protected removeLink(at: number): void {
    this.change({ links: without(this.draft()?.links ?? [], at) });
  }

  /**
   * Saves what is written; what changes meanwhile is saved after it.
   *
   * @param then - once everything that is written is saved; not where it is refused
   */
  protected save(then?: (review: ReviewAnswer) => void): void {
    if (then) this.afterSaving.push(then);
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    const [draft, review] = [this.draft(), this.review()];
    if (!draft || !review || this.state() === 'saving') return;
    if (this.state() === 'saved') {
      this.allSaved(review);
      return;
    }
    if (this.problems().length > 0 || this.refusals.stop()) {
      this.afterSaving = [];
      this.state.set('refused');
      return;
    }
    this.state.set('saving');
    this.data.save(review.id, review.revision, savable(draft)).subscribe({
      next: (saved) => {
        this.saveProblem.set(null);
        this.review.set(saved);
        const now = this.draft();
        if (now && now !== draft) {
          keepDraft(saved, saved.revision, now);
          this.state.set('waiting');
          if (this.afterSaving.length > 0) this.save();
          else this.saveSoon();
          return;
        }
        forgetDraft(saved);
        this.state.set('saved');
        this.allSaved(saved);
      },
      error: (error: unknown) => {
        this.afterSaving = [];
        this.saveProblem.set(problemOf(error));
        this.state.set('refused');
      },
    });
  }

  private allSaved(review: ReviewAnswer): void {
    const waiting = this.afterSaving;
    this.afterSaving = [];
    for (const then of waiting) then(review);
  }

  protected publish(): void {
    this.save((saved) => {
      this.saving.run(this.data.publish(saved.id, saved.revision), (review) => this.review.set(review));
    });
  }

  protected discard(): void {
    this.saving.run(this.data.discard(this.id()), () => {
      const review = this.review();
      if (review) forgetDraft(review);
      this.state.set('saved');
      this.draft.set(null);
      void this.router.navigate(['/reviews']);
    });
  }

  /** What the server says: all of it where nothing is being written, what stands beside the text otherwise. */
  private take(value: ReviewAnswer): void {
    const known = this.review();
    const isOther = known?.id !== value.id;
    if (isOther || this.state() === 'saved') {
      this.review.set(value);
      if (isOther || known.revision !== value.revision) this.begin(value);
    } else this.review.set({ ...value, revision: known.revision });
  }

  /** What was saved, or what was written here after it and did not get so far. */
  private begin(value: ReviewAnswer): void {
    const kept = keptDraft(value, value.revision);
    this.draft.set(kept ?? value.document);
    if (kept) this.saveSoon();
  }
}
