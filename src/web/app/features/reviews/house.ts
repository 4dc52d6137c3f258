import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { MultiSelect } from 'primeng/multiselect';
import { QUANTITY_IDS, isQuantity, quantity } from '#core/measure/registry';
import { PROPOSAL_RULES, type House, type HouseUse, type ProposalRule } from '#contracts/review';
import { Breadcrumb } from '../../data/breadcrumb';
import { kindChoices } from '../../data/choices';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { ReviewData } from '../../data/reviews';
import { Saving } from '../../data/saving';
import { ChoiceField } from '../../ui/field/choice-field';
import { NumberField } from '../../ui/field/number-field';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { TickField } from '../../ui/field/tick-field';
import { ProblemBox } from '../../ui/problem-box';
import { directionOf, houseProblems, limitOf, withLimit, withRule } from './house-draft';
import { changedAt, without } from './review-draft';

/** How this desk reviews and publishes: its name, its uses, the rules that propose. */
@Component({
  selector: 'sd-house',
  imports: [Button, ChoiceField, FormsModule, MultiSelect, NumberField, ProblemBox, TextField, TickField],
  templateUrl: './house.html',
  styleUrl: './house.css',
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HousePage {
  private readonly data = inject(ReviewData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();
  private readonly loaded = toSignal(this.data.house, { initialValue: LOADING });
  protected readonly problem = computed(() => this.loaded().problem);
  protected readonly draft = signal<House | null>(null);
  protected readonly isChanged = signal(false);
  protected readonly problems = computed(() => {
    const draft = this.draft();
    return draft ? houseProblems(draft) : [];
  });
  protected readonly rules = Object.keys(PROPOSAL_RULES).map((id) => ({ id: id as ProposalRule, words: PROPOSAL_RULES[id as ProposalRule] })); // prettier-ignore
  protected readonly figures = QUANTITY_IDS.filter((id) => quantity(id).group !== 'recording').map((value) => ({ label: quantity(value).name, value, note: quantity(value).unit })); // prettier-ignore
  protected readonly kinds = kindChoices();
  protected readonly directions = (['at least', 'at most'] as const).map((value) => ({ label: value, value }));
  protected readonly percent = { unit: '%', decimals: 0, least: 50, most: 100 };
  protected readonly count = { unit: '', decimals: 0, least: 2, most: 1000 };
  protected readonly directionOf = directionOf;
  protected readonly limitOf = limitOf;

  constructor() {
    effect(() => {
      const { value } = this.loaded();
      if (value && !this.isChanged()) this.draft.set(value);
    });
    inject(Breadcrumb).crumbs.set([
      { label: 'Reviews', link: '/reviews' },
      { label: 'How this desk reviews', link: null },
    ]);
    inject(ScreenKeys).hints.set([]);
  }

  protected unitOf(figure: string): string {
    return isQuantity(figure) ? quantity(figure).unit : '';
  }

  protected limitSheet(figure: string) {
    const decimals = isQuantity(figure) ? quantity(figure).decimals : 1;
    return { unit: this.unitOf(figure), decimals, least: -200, most: 100_000 };
  }

  protected change(part: Partial<House>): void {
    this.draft.update((d) => d && { ...d, ...part });
    this.isChanged.set(true);
  }

  protected setRule(rule: ProposalRule, isOn: boolean): void {
    const draft = this.draft();
    if (draft) this.change(withRule(draft, rule, isOn));
  }

  protected changeUse(at: number, part: Partial<HouseUse>): void {
    const uses = this.draft()?.uses ?? [];
    this.change({ uses: changedAt(uses, at, { ...uses[at], ...part }) });
  }

  protected removeUse(at: number): void {
    this.change({ uses: without(this.draft()?.uses ?? [], at) });
  }

  protected addUse(): void {
    this.change({ uses: [...(this.draft()?.uses ?? []), { name: '', kinds: [], wants: [] }] });
  }

  protected addWant(at: number): void {
    const use = this.draft()?.uses[at];
    if (use) this.changeUse(at, { wants: [...use.wants, { figure: 'noiseReSpeechA', atLeast: null, atMost: null }] });
  }

  protected removeWant(at: number, want: number): void {
    const use = this.draft()?.uses[at];
    if (use) this.changeUse(at, { wants: without(use.wants, want) });
  }

  protected changeWant(
    at: number,
    want: number,
    part: { figure?: string; direction?: 'at least' | 'at most'; limit?: number | null },
  ): void {
    const use = this.draft()?.uses[at];
    if (!use) return;
    const before = use.wants[want];
    const limit = part.limit === undefined ? limitOf(before) : part.limit;
    const next = withLimit({ ...before, figure: part.figure ?? before.figure }, part.direction ?? directionOf(before), limit); // prettier-ignore
    this.changeUse(at, { wants: changedAt(use.wants, want, next) });
  }

  protected save(): void {
    const draft = this.draft();
    if (!draft || this.problems().length > 0 || this.refusals.stop()) return;
    this.saving.run(this.data.saveHouse(draft), (saved) => {
      this.isChanged.set(false);
      this.draft.set(saved);
    });
  }
}
