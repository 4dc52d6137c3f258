import { ChangeDetectionStrategy, Component, HostListener, computed, effect, inject, input, untracked, type OnDestroy } from '@angular/core'; // prettier-ignore
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { switchMap } from 'rxjs';
import type { Problem } from '#contracts/problem';
import { AFTERWARDS, OBTAINED, type Proposal, type ReviewDocument } from '#contracts/review'; // prettier-ignore
import { Breadcrumb } from '../../data/breadcrumb';
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
import { LineList } from './line-list';
import { LineMarkNote } from './line-mark';
import { ProposalsPanel } from './proposals-panel';
import { QuotationLines } from './quotation-lines';
import { changedAt, markOf, renewed, withProposal, without } from './review-draft';
import { ReviewWriting } from './review-writing';
import { UseLines } from './use-lines';

/** Nothing is filled in yet: it is refused where it is saved. */
const NO_AMOUNT = 0;

/** A review as it is written: what a person says, what rules propose, what was published of it. */
@Component({
  selector: 'sd-review',
  imports: [AlternativeLines, Button, ChoiceField, CurrencyField, DeckPicker, EditionList, LineList, LineMarkNote, MarkdownField, NumberField, ProblemBox, ProposalsPanel, RouterLink, TextField, UseLines, QuotationLines], // prettier-ignore
  templateUrl: './review.html',
  styleUrl: './review.css',
  host: { class: 'page-frame' },
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
  private readonly writing = new ReviewWriting(
    (id, revision, document) => this.data.save(id, revision, document),
    () => this.refusals.stop(),
  );
  protected readonly review = this.writing.review.asReadonly();
  protected readonly draft = this.writing.draft.asReadonly();
  protected readonly state = this.writing.state.asReadonly();
  protected readonly problems = this.writing.problems;
  protected readonly overtaken = this.writing.overtaken.asReadonly();
  protected readonly overtakenChanges = this.writing.overtakenChanges;
  protected readonly problem = computed<Problem | null>(() => this.writing.problem() ?? this.loaded().problem);
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

  constructor() {
    const breadcrumb = inject(Breadcrumb);
    effect(() => {
      const { value } = this.loaded();
      if (value) untracked(() => this.writing.take(value));
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
    this.writing.leave();
  }

  @HostListener('window:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    if (event.key !== 's' || !(event.ctrlKey || event.metaKey)) return;
    event.preventDefault();
    this.writing.save();
  }

  @HostListener('window:beforeunload', ['$event'])
  protected onLeave(event: BeforeUnloadEvent): void {
    if (this.state() !== 'saved') event.preventDefault();
  }

  protected change(part: Partial<ReviewDocument>): void {
    this.writing.change(part);
  }

  protected takeOvertaken(): void {
    this.writing.takeOvertaken();
  }

  protected dropOvertaken(): void {
    this.writing.dropOvertaken();
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

  protected publish(): void {
    this.writing.save((saved) => {
      this.saving.run(this.data.publish(saved.id, saved.revision), (review) => this.writing.review.set(review));
    });
  }

  protected discard(): void {
    this.saving.run(this.data.discard(this.id()), () => {
      this.writing.forget();
      void this.router.navigate(['/reviews']);
    });
  }
}
