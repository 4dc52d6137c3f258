import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { catchError, combineLatest, debounceTime, map, of, switchMap } from 'rxjs';
import type { RankedUnit } from '#core/rules/rank';
import {
  TOTALS_SHOWN,
  USUAL_UPGRADE,
  countedCurrency,
  type Criterion,
  type Rubric,
  type RubricUse,
  type TotalShown,
  type UpgradeRule,
} from '#core/rules/rubric';
import { shownTotal } from '#core/rules/shown-total';
import { gearKindIds } from '#core/gear/kinds';
import { capital } from '#core/text/capital';
import { categorySchema, type Category } from '#contracts/common';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { kindChoices } from '../../data/choices';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { Ranker } from '../../data/ranker';
import { Saving } from '../../data/saving';
import { ChoiceField } from '../../ui/field/choice-field';
import { NumberField } from '../../ui/field/number-field';
import { SHEETS, priceSheet } from '../../ui/field/number-sheets';
import { Refusals } from '../../ui/field/refusals';
import { TextField } from '../../ui/field/text-field';
import { kindName } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { moved } from '../protocols/protocol-draft';
import { upgradeRuleWords } from '../ranking/upgrade-sentences';
import { CriterionForm } from './criterion-form';
import { criterionId, draftProblems, firstRubric, sourceWords, withCriterion, withoutCriterion } from './rubric-draft';
import { ExchangeRatesPanel } from './exchange-rates-panel';
import { WhoMoves } from './who-moves';

const SETTLE_MS = 150;
const WEIGHT = { unit: '', least: 0, most: 100 } as const;
const TOTAL_NAMES: Readonly<Record<TotalShown, string>> = {
  mean: 'as a mean of 5',
  sum: 'as a sum, 5 for each criterion',
  'per-cent': 'in per cent',
};

/** The written rules by which a kind of gear is scored; before they are saved, who moves. */
@Component({
  selector: 'sd-rules',
  imports: [
    Button,
    ChoiceField,
    CriterionForm,
    ExchangeRatesPanel,
    FormsModule,
    NumberField,
    ProblemBox,
    RouterLink,
    TextField,
    WhoMoves,
  ],
  templateUrl: './rules.html',
  styleUrl: './rules.css',
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Rules {
  /** ?kind=… is the kind of gear whose rules are shown. */
  readonly kind = input<string>();

  private readonly data = inject(CatalogueData);
  private readonly ranker = inject(Ranker);
  private readonly router = inject(Router);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();

  protected readonly category = computed<Category>(
    () => categorySchema.safeParse(this.kind()).data ?? gearKindIds()[0],
  );
  protected readonly kinds = kindChoices();
  protected readonly kindName = computed(() => kindName(this.category()));
  private readonly loaded = toSignal(toObservable(this.category).pipe(switchMap((c) => this.data.rubricVersions(c))), {
    initialValue: LOADING,
  });
  protected readonly versions = computed(() => {
    const versions = this.loaded().value;
    // Those of another kind are still on their way out.
    return versions?.every((v) => v.rubric.category === this.category()) ? versions : null;
  });
  protected readonly problem = computed(() => this.loaded().problem);
  private readonly inputsLoaded = toSignal(
    toObservable(this.category).pipe(switchMap((c) => this.data.rankingInputs(c))),
    { initialValue: LOADING },
  );
  protected readonly inputs = computed(() => {
    const inputs = this.inputsLoaded().value;
    return inputs?.rubric.category === this.category() ? inputs : null;
  });
  private readonly protocolsLoaded = toSignal(this.data.protocols, { initialValue: LOADING });
  protected readonly protocols = computed(() => this.protocolsLoaded().value ?? []);
  protected readonly units = computed(() => this.inputs()?.units ?? []);
  protected readonly names = computed(() => this.inputs()?.names ?? {});

  /** The rules as they stand. */
  protected readonly stands = computed(() => this.versions()?.at(0)?.rubric ?? null);
  /** What is being changed; null while nothing is. */
  protected readonly draft = linkedSignal<Category, Rubric | null>({ source: this.category, computation: () => null });
  protected readonly shown = computed(() => this.draft() ?? this.stands());
  protected readonly useNames = computed(() => (this.shown()?.uses ?? []).map((u) => u.name));
  protected readonly opened = signal<string | null>(null);
  protected readonly isChanged = computed(() => {
    const draft = this.draft();
    return draft !== null && JSON.stringify(draft) !== JSON.stringify(this.stands());
  });
  protected readonly problems = computed(() => {
    const draft = this.draft();
    return draft ? draftProblems(draft, this.protocols()) : [];
  });
  private readonly rankable = computed(() => (this.isChanged() && this.problems().length === 0 ? this.draft() : null));
  protected readonly preview = toSignal(
    combineLatest([toObservable(this.inputs), toObservable(this.rankable)]).pipe(
      debounceTime(SETTLE_MS),
      switchMap(([inputs, draft]) => {
        if (!inputs || !draft) return of(null);
        const before = this.ranker.rank(inputs, inputs.rubric.weights);
        const after = this.ranker.rank({ ...inputs, rubric: draft }, draft.weights);
        return combineLatest([before, after]).pipe(
          map(([b, a]): { before: RankedUnit[]; after: RankedUnit[]; draft: Rubric } => ({
            before: b,
            after: a,
            draft,
          })),
          catchError(() => of(null)),
        );
      }),
    ),
    { initialValue: null },
  );
  /** The order on the screen is not yet that of the rules beside it. */
  protected readonly isSettling = computed(() => this.rankable() !== (this.preview()?.draft ?? null));

  protected readonly weight = WEIGHT;
  protected readonly totals = TOTALS_SHOWN.map((value) => ({ label: TOTAL_NAMES[value], value }));
  protected readonly sourceWords = sourceWords;
  protected readonly sheets = SHEETS;
  protected readonly sheetOf = priceSheet;
  protected readonly upgrade = computed<UpgradeRule>(() => this.shown()?.upgrade ?? USUAL_UPGRADE);
  protected readonly currency = computed(() => {
    const rubric = this.shown();
    return rubric && countedCurrency(rubric);
  });
  protected readonly upgradeWords = computed(() => capital(upgradeRuleWords(this.upgrade(), this.currency())));
  protected readonly totalHead = computed(() => {
    const rubric = this.shown();
    return rubric ? shownTotal(rubric, rubric.weights).head : '';
  });

  constructor() {
    const breadcrumb = inject(Breadcrumb);
    effect(() =>
      breadcrumb.crumbs.set([
        { label: 'Rules', link: null },
        { label: this.kindName(), link: null },
      ]),
    );
    inject(ScreenKeys).hints.set([{ keys: '← → ↑ ↓', does: 'Move a knot of a curve' }]);
  }

  protected setKind(kind: Category): void {
    this.opened.set(null);
    void this.router.navigate([], { queryParams: { kind } });
  }

  protected begin(): void {
    this.draft.set(this.stands() ?? firstRubric(this.category()));
  }

  protected cancel(): void {
    this.draft.set(null);
    this.opened.set(null);
  }

  protected changeUpgrade(part: Partial<UpgradeRule>): void {
    this.change({ upgrade: { ...this.upgrade(), ...part } });
  }

  protected change(part: Partial<Rubric>): void {
    this.draft.update((draft) => draft && { ...draft, ...part });
  }

  protected changeCriterion(criterion: Criterion): void {
    this.draft.update(
      (draft) => draft && { ...draft, criteria: draft.criteria.map((c) => (c.id === criterion.id ? criterion : c)) },
    );
  }

  protected setWeight(id: string, value: number): void {
    this.draft.update((draft) => draft && { ...draft, weights: { ...draft.weights, [id]: value } });
  }

  protected add(): void {
    this.draft.update((draft) => {
      if (!draft) return draft;
      const id = criterionId('new criterion', draft.criteria.map((c) => c.id)); // prettier-ignore
      this.opened.set(id);
      return withCriterion(draft, { id, name: 'New criterion', meaning: 'What earns points here.', kind: 'by-hand', repeatability: 0.2 }); // prettier-ignore
    });
  }

  protected remove(id: string): void {
    this.draft.update((draft) => draft && withoutCriterion(draft, id));
  }

  protected move(at: number, by: number): void {
    this.draft.update((draft) => draft && { ...draft, criteria: moved(draft.criteria, at, by) });
  }

  protected toggle(id: string): void {
    this.opened.update((open) => (open === id ? null : id));
  }

  protected addUse(): void {
    const uses = this.draft()?.uses ?? [];
    this.change({ uses: [...uses, { name: `Use ${uses.length + 1}`, weights: {} }] });
  }

  protected renameUse(at: number, name: string): void {
    this.change({ uses: (this.draft()?.uses ?? []).map((u, i) => (i === at ? { ...u, name } : u)) });
  }

  protected removeUse(at: number): void {
    this.change({ uses: (this.draft()?.uses ?? []).filter((_, i) => i !== at) });
  }

  /** Weight that a use has of its own. */
  protected readonly useWeight = (use: RubricUse, id: string): number | null =>
    Object.hasOwn(use.weights, id) ? use.weights[id] : null;

  /** Emptied, a use has the usual weight again. */
  protected setUseWeight(at: number, id: string, value: number | null): void {
    this.change({
      uses: (this.draft()?.uses ?? []).map((u, i) => {
        if (i !== at) return u;
        const others = Object.fromEntries(Object.entries(u.weights).filter(([key]) => key !== id));
        return { ...u, weights: value === null ? others : { ...others, [id]: value } };
      }),
    });
  }

  protected save(): void {
    const draft = this.draft();
    if (!draft || this.problems().length > 0 || this.refusals.stop()) return;
    this.saving.run(this.data.saveRubric(draft), () => this.cancel());
  }
}
