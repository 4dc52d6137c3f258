import { NgTemplateOutlet } from '@angular/common';
import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink, type Params } from '@angular/router';
import { Button } from 'primeng/button';
import { Slider } from 'primeng/slider';
import { catchError, combineLatest, debounceTime, filter, map, of, startWith, switchMap, type Observable } from 'rxjs';
import { gearKindIds } from '#core/gear/kinds';
import type { PriceBasis } from '#core/rules/price-basis';
import { pricePoints } from '#core/rules/price-rule';
import type { RankedUnit } from '#core/rules/rank';
import { countedCurrency, type Criterion } from '#core/rules/rubric';
import { shownTotal, weightsFor } from '#core/rules/shown-total';
import { categorySchema, type Category } from '#contracts/common';
import type { RankingInputs, RankingOnDay } from '#contracts/ranking';
import { addDays } from '#core/text/local-day';
import { ChoiceField, type Choice } from '../../ui/field/choice-field';
import { NumberField } from '../../ui/field/number-field';
import { priceSheet } from '../../ui/field/number-sheets';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { classChoices, classesText, readClasses } from '../../data/class-filter';
import { kindChoices } from '../../data/choices';
import { LOADING, type Loaded } from '../../data/loaded';
import { ScreenKeys } from '../../data/keys';
import { Ranker } from '../../data/ranker';
import { formatNumber, kindName, formatPrice, today } from '../../ui/format';
import { KeptLists } from '../../ui/kept-lists';
import { ProblemBox } from '../../ui/problem-box';
import { Whisker, percentOn, scaleAround, ticksOf } from '../../ui/whisker';
import { nameOf, neighbourOf, rankingLines, standingSentences, unitUnderTest, type RankingLine } from './standing';
import { Narrow } from '../../data/narrow';
import { BeatenView } from './beaten-view';
import { BoardView } from './board-view';
import { FrontierView } from './frontier-view';
import { KindTables } from './kind-tables';
import { MovedView } from './moved-view';
import { RecordsView } from './records-view';
import { SideBySideView } from './side-by-side-view';
import { DateField } from '../../ui/field/date-field';
import {
  MOST_WEIGHT,
  RANKING_VIEWS,
  filterInputs,
  readBasis,
  readPastDay,
  readUpTo,
  readWeights,
  weightsText,
  withBasis,
  type RankingFilter,
  type RankingView,
  type Weights,
} from './ranking-request';
import { WhyPanel } from './why-panel';

/** What is ranked, and what is said of it where it is of a day that is over. */
interface ShownInputs {
  readonly inputs: RankingInputs;
  readonly onDay: (RankingOnDay & { readonly day: string }) | null;
}

const PRICE_BASIS_CHOICES: readonly Choice<PriceBasis>[] = [
  { label: 'as the rules say', value: 'rules' },
  { label: 'on the day of its first test', value: 'at-review' },
  { label: 'the cheapest of now', value: 'cheapest' },
  { label: 'with what it needs', value: 'to-use' },
];
const yearBefore = (day: string): string => addDays(day, -365);
const weightsKey = (kind: Category, use: string | null): string =>
  `sediment.weights.${kind}${use === null ? '' : `.${use}`}`;
const SETTLE_MS = 60;
/** Lines left above a unit that is brought into view. */
const LINES_ABOVE = 6;

/** Everything ever tested in one order: strata, whiskers, and where the new one settles. */
@Component({
  selector: 'sd-ranking',
  imports: [
    BeatenView,
    BoardView,
    Button,
    ChoiceField,
    FormsModule,
    DateField,
    FrontierView,
    KeptLists,
    KindTables,
    MovedView,
    NgTemplateOutlet,
    NumberField,
    ProblemBox,
    RecordsView,
    RouterLink,
    ScrollingModule,
    SideBySideView,
    Slider,
    Whisker,
    WhyPanel,
  ],
  templateUrl: './ranking.html',
  styleUrl: './ranking.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Ranking {
  private readonly narrow = inject(Narrow);
  /** Height of a row: on a narrow screen the whisker stands below the name. */
  protected readonly rowHeight = computed(() => (this.narrow.isNarrow() ? 64 : 32));
  /** ?unit=… asks about another unit than the latest on the desk. */
  readonly unit = input<string>();
  /** ?kind=… is the kind of gear that is ranked. */
  readonly kind = input<string>();
  /** ?use=… takes the weights of a use. */
  readonly use = input<string>();
  /** ?is=transducer:ribbon ranks those that are, among each other. */
  readonly is = input<string>();
  /** ?w=noise:4,value:0 are weights that differ from those of the rules. */
  readonly w = input<string>();
  /** ?upTo=200 leaves out what costs more. */
  readonly upTo = input<string>();
  /** ?basis=cheapest counts another price than the rules do. */
  readonly basis = input<string>();
  /** ?on=2023-05-01 is the ranking as it stood on that day. */
  readonly on = input<string>();
  /** ?since=2023-05-01 with ?view=moved is what has moved since. */
  readonly since = input<string>();
  /** ?view=board, price or moved shows the same units in another way. */
  readonly view = input<string>();

  private readonly router = inject(Router);
  private readonly ranker = inject(Ranker);
  private readonly data = inject(CatalogueData);
  private readonly specimens = toSignal(this.data.specimens, { initialValue: LOADING });
  private readonly rubrics = toSignal(this.data.rubrics, { initialValue: LOADING });
  /** The kind that the address names, or that of the unit in it. */
  protected readonly rankedKind = computed<Category>(
    () =>
      categorySchema.safeParse(this.kind()).data ??
      this.specimens().value?.find((row) => row.id === this.unit())?.category ??
      gearKindIds()[0],
  );
  /** Kinds that have rules, and the one that was asked for. */
  protected readonly kinds = computed(() => {
    const ruled = new Set(this.rubrics().value?.map((r) => r.category));
    return kindChoices(gearKindIds().filter((c) => ruled.has(c) || c === this.rankedKind()));
  });
  /** Nothing to rank by; null while that is not known. */
  protected readonly hasNoRules = computed(() => {
    const rubrics = this.rubrics().value;
    return rubrics && !rubrics.some((r) => r.category === this.rankedKind());
  });
  protected readonly kindName = computed(() => kindName(this.rankedKind()));
  /** A day that is over; null: today. */
  protected readonly day = computed(() => readPastDay(this.on(), today()));
  private readonly loaded = toSignal(
    this.askedOf(
      () => true,
      () => this.day(),
    ).pipe(switchMap((asked) => (asked === null ? of(LOADING) : this.inputsOf(asked.kind, asked.day)))),
    { initialValue: LOADING },
  );
  /** A day in the address that has not come: today is shown, and that is said. */
  protected readonly future = computed(() => {
    const on = this.on();
    return on !== undefined && on > today() ? on : null;
  });
  /** What is said of a day that is over. */
  protected readonly onDay = computed(() => this.loaded().value?.onDay ?? null);
  protected readonly earlier = computed(
    () => readPastDay(this.since(), this.day() ?? today()) ?? yearBefore(this.day() ?? today()),
  );
  private readonly earlierLoaded = toSignal(
    this.askedOf(
      () => this.shownView() === 'moved',
      () => this.earlier(),
    ).pipe(
      // Those of another day are not those that are asked for.
      switchMap((asked) =>
        asked === null ? of(LOADING) : this.data.rankingOnDay(asked.kind, asked.day).pipe(startWith(LOADING)),
      ),
    ),
    { initialValue: LOADING },
  );
  protected readonly before = computed(() => {
    const then = this.earlierLoaded().value;
    if (!then) return null;
    const inputs = withBasis(then.inputs, this.priceBasis(), this.usedFor(then.inputs));
    return filterInputs(inputs, this.specimens().value ?? [], this.filter());
  });
  protected readonly problem = computed(() => this.rubrics().problem ?? this.loaded().problem);
  private readonly all = computed(() => {
    const inputs = this.loaded().value?.inputs ?? null;
    return inputs && withBasis(inputs, this.priceBasis(), this.usedFor(inputs));
  });
  protected readonly priceBasis = computed(() => readBasis(this.basis()));
  protected readonly bases = PRICE_BASIS_CHOICES;
  /** The use of the address, where the rules have it. */
  private usedFor({ rubric }: RankingInputs): string | null {
    return rubric.uses?.find((u) => u.name === this.use())?.name ?? null;
  }
  protected readonly shownView = computed<RankingView>(() => RANKING_VIEWS.find((v) => v === this.view()) ?? 'list');
  protected readonly filter = computed<RankingFilter>(() => ({
    classes: readClasses(this.is(), this.rankedKind()),
    upTo: readUpTo(this.upTo()),
  }));
  protected readonly isFiltered = computed(() => this.filter().classes.length > 0 || this.filter().upTo !== null);
  /** Facts of the units that the filter leaves: they are ranked among each other. */
  protected readonly inputs = computed(() => {
    const all = this.all();
    return all && filterInputs(all, this.specimens().value ?? [], this.filter());
  });
  protected readonly count = computed(() => this.inputs()?.units.length ?? 0);
  /** Views that need the whole width, and whose order no weight changes. */
  protected readonly isWhole = computed(() => ['board', 'tables', 'records', 'moved'].includes(this.shownView()));
  protected readonly firstTested = computed(
    () =>
      new Map((this.specimens().value ?? []).flatMap((s) => (s.firstTested === null ? [] : [[s.id, s.firstTested]]))),
  );
  protected readonly classes = computed(() => classChoices(this.rankedKind(), this.specimens().value ?? []));
  protected readonly uses = computed(() => {
    const uses = this.all()?.rubric.uses ?? [];
    return uses.length === 0
      ? []
      : [{ label: 'any use', value: null }, ...uses.map((u) => ({ label: u.name, value: u.name }))];
  });
  protected readonly rankedUse = computed(() => this.uses().find((u) => u.value === this.use())?.value ?? null);
  protected readonly currency = computed(() => {
    const rubric = this.all()?.rubric;
    return rubric ? countedCurrency(rubric) : null;
  });
  protected readonly priceSheet = computed(() => {
    const currency = this.currency();
    return currency === null ? null : priceSheet(currency);
  });
  protected readonly criteria = computed<readonly Criterion[]>(() => this.inputs()?.rubric.criteria ?? []);
  private readonly criterionNames = computed(() => new Map(this.criteria().map((c) => [c.id, c.name])));

  /** Weights of the rubric, for the use that the address names. */
  private readonly given = computed<Weights>(() => {
    const rubric = this.all()?.rubric;
    return rubric ? weightsFor(rubric, this.rankedUse()) : {};
  });
  private readonly weightsKey = computed(() => weightsKey(this.rankedKind(), this.rankedUse()));
  /** Those of the address, or those that were chosen here the last time. */
  private readonly chosen = linkedSignal<Weights | null>(
    () => readWeights(this.w()) ?? storedWeights(this.weightsKey()),
  );
  protected readonly weights = computed<Weights>(() => ({ ...this.given(), ...this.chosen() }), {
    equal: (a, b) => JSON.stringify(a) === JSON.stringify(b),
  });
  /** What of them belongs into the address; undefined while the rules are on their way. */
  private readonly differing = computed(() =>
    this.all()?.rubric.category === this.rankedKind() ? weightsText(this.weights(), this.given()) : undefined,
  );
  protected readonly total = computed(() => {
    const rubric = this.all()?.rubric;
    return rubric ? shownTotal(rubric, this.weights()) : null;
  });
  protected readonly isChanged = computed(() =>
    this.criteria().some((c) => this.weights()[c.id] !== this.given()[c.id]),
  );

  protected readonly rankProblem = signal<string | null>(null);
  protected readonly result = toSignal(
    combineLatest([
      toObservable(this.inputs).pipe(filter((i): i is RankingInputs => i !== null)),
      toObservable(this.weights),
    ]).pipe(
      debounceTime(SETTLE_MS),
      switchMap(([inputs, weights]) =>
        this.ranker.rank(inputs, weights).pipe(
          map((ranked) => ({ inputs, weights, ranked })),
          catchError((error: unknown) => {
            this.rankProblem.set(error instanceof Error ? error.message : String(error));
            return of(null);
          }),
        ),
      ),
      takeUntilDestroyed(),
    ),
    { initialValue: null },
  );
  protected readonly ranked = computed<readonly RankedUnit[]>(() => this.result()?.ranked ?? []);
  /** The order on the screen is not yet that of the weights beside it. */
  protected readonly isSettling = computed(() => {
    const result = this.result();
    return result?.inputs !== this.inputs() || result?.weights !== this.weights();
  });
  protected readonly names = computed(() => this.result()?.inputs.names ?? {});
  protected readonly lines = computed(() => rankingLines(this.ranked()));
  protected readonly scale = computed(() => scaleAround(this.ranked().map((u) => u.composite90)));
  protected readonly ticks = computed(() =>
    ticksOf(this.scale()).map((t) => ({ label: formatNumber(t, 1), at: percentOn(this.scale(), t) })),
  );
  protected readonly underTest = computed(
    () => this.ranked().find((u) => u.id === this.unit()) ?? unitUnderTest(this.ranked(), this.names()),
  );
  protected readonly answer = computed(() => {
    const unit = this.underTest();
    return unit ? standingSentences(unit, this.ranked(), this.names(), this.criterionNames()) : [];
  });
  private readonly prices = computed(() => this.pricesByUnit());
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  protected readonly active = signal(0);
  private readonly selected = signal<string | null>(null);
  protected readonly open = computed(() => this.ranked().find((u) => u.id === this.selected()) ?? null);
  /** The unit that the open one is held against; the one above it until another is chosen. */
  private readonly rival = linkedSignal<string | null, string | null>({
    source: this.selected,
    computation: () => null,
  });
  /** Two units of the ranking, the better one first; null where there is only one. */
  protected readonly pair = computed(() => {
    const ranked = this.result()?.ranked ?? [];
    const open = this.open();
    const other = ranked.find((u) => u.id === this.rival()) ?? neighbourOf(ranked, open);
    if (!open || !other || other.id === open.id) return null;
    return open.place < other.place ? { first: open.id, second: other.id, rival: other.id } : { first: other.id, second: open.id, rival: other.id }; // prettier-ignore
  });
  protected readonly rivals = computed(() =>
    this.ranked()
      .filter((u) => u.id !== this.selected())
      .map((u) => ({ label: nameOf(this.names(), u.id), value: u.id, note: `place ${u.place}` })),
  );

  constructor() {
    const breadcrumb = inject(Breadcrumb);
    effect(() => {
      breadcrumb.crumbs.set([
        { label: 'Ranking', link: null },
        { label: this.kindName(), link: null },
      ]);
    });
    inject(ScreenKeys).hints.set([
      { keys: '↑ ↓', does: 'Walk the list' },
      { keys: 'Space', does: 'Show what a unit\u2019s place is made of' },
      { keys: 'Enter', does: 'Open the unit' },
    ]);
    let shownFor = '';
    effect(() => {
      // A unit that was asked for by address is brought into view, once.
      const asked = this.unit();
      const viewport = this.viewport();
      const at = this.lines().findIndex((line) => line.kind === 'unit' && line.unit.id === asked);
      if (!asked || !viewport || at < 0 || shownFor === asked) return;
      shownFor = asked;
      setTimeout(() => viewport.scrollToIndex(Math.max(0, at - LINES_ABOVE)));
    });
    // A slider that moves is written down when it rests, and leaves no step back for every place on its way.
    toObservable(this.differing)
      .pipe(debounceTime(SETTLE_MS), takeUntilDestroyed())
      .subscribe((w) => {
        if (w !== undefined && w !== (this.w() ?? null)) this.ask({ w }, true);
      });
  }

  protected readonly mostWeight = MOST_WEIGHT;
  protected readonly views: readonly { readonly label: string; readonly value: RankingView }[] = [
    { label: 'Order', value: 'list' },
    { label: 'All figures', value: 'board' },
    { label: 'Tables', value: 'tables' },
    { label: 'Records', value: 'records' },
    { label: 'Against price', value: 'price' },
    { label: 'What moved', value: 'moved' },
  ];
  protected readonly name = (unit: RankedUnit): string => nameOf(this.names(), unit.id);
  protected readonly number = formatNumber;
  protected readonly trackLine = (_: number, line: RankingLine): string =>
    line.kind === 'unit' ? line.unit.id : `stratum ${line.stratum}`;

  protected price(unit: RankedUnit): string {
    return this.prices().get(unit.id) ?? 'no price';
  }

  protected setKind(kind: Category): void {
    this.selected.set(null);
    void this.router.navigate([], { queryParams: { kind } });
  }

  /** Kind and day of what is asked for, each once; null where nothing is. */
  private askedOf<D>(isAsked: () => boolean, day: () => D): Observable<{ kind: Category; day: D } | null> {
    return toObservable(
      computed(() => (this.hasNoRules() === false && isAsked() ? { kind: this.rankedKind(), day: day() } : null), {
        equal: (a, b) => a?.kind === b?.kind && a?.day === b?.day,
      }),
    );
  }

  /** As it stands, or as it stood on a day. */
  private inputsOf(kind: Category, day: string | null): Observable<Loaded<ShownInputs>> {
    if (day === null)
      return this.data
        .rankingInputs(kind)
        .pipe(
          map((loaded) =>
            loaded.value ? { ...loaded, value: { inputs: loaded.value, onDay: null } } : { ...loaded, value: null },
          ),
        );
    return this.data
      .rankingOnDay(kind, day)
      .pipe(
        map((loaded) =>
          loaded.value
            ? { ...loaded, value: { inputs: loaded.value.inputs, onDay: { day, ...loaded.value } } }
            : { ...loaded, value: null },
        ),
      );
  }

  protected setDay(day: string | null): void {
    this.ask({ on: day === today() ? null : day });
  }

  protected setSince(since: string): void {
    this.ask({ since });
  }

  protected setRival(id: string): void {
    this.rival.set(id);
  }

  protected setUse(use: string | null): void {
    // Each use has weights of its own.
    this.ask({ use, w: null });
  }

  protected setBasis(basis: PriceBasis): void {
    this.ask({ basis: basis === 'rules' ? null : basis });
  }

  protected setView(view: RankingView): void {
    this.ask({ view: view === 'list' ? null : view });
  }

  /** Words of one field: none is any. */
  protected setClass(field: string, word: string | null): void {
    const others = this.filter().classes.filter((c) => c.field !== field);
    this.ask({ is: classesText(word === null ? others : [...others, { field, word }]) });
  }

  protected classOf(field: string): string | null {
    return this.filter().classes.find((c) => c.field === field)?.word ?? null;
  }

  protected setUpTo(amount: number | null): void {
    this.ask({ upTo: amount });
  }

  protected clearFilter(): void {
    this.ask({ is: null, upTo: null });
  }

  private ask(queryParams: Params, replaceUrl = false): void {
    void this.router.navigate([], {
      queryParams: { kind: this.rankedKind(), ...queryParams },
      queryParamsHandling: 'merge',
      replaceUrl,
    });
  }

  protected readonly classOptions = (words: readonly { word: string; units: number }[]): Choice<string | null>[] => [
    { label: 'any', value: null },
    ...words.map((w) => ({ label: w.word, value: w.word, note: `${w.units}` })),
  ];

  protected readonly totalText = (value: number): string => {
    const total = this.total();
    return total ? formatNumber(value * total.factor, total.decimals) : '';
  };

  protected setWeight(id: string, value: number): void {
    const chosen = { ...this.weights(), [id]: value };
    this.chosen.set(chosen);
    localStorage.setItem(this.weightsKey(), JSON.stringify(chosen));
  }

  protected resetWeights(): void {
    this.chosen.set(null);
    localStorage.removeItem(this.weightsKey());
  }

  protected select(unit: RankedUnit, index: number): void {
    this.active.set(index);
    this.selected.update((id) => (id === unit.id ? null : unit.id));
  }

  protected key(event: KeyboardEvent, index: number, line: RankingLine): void {
    if (line.kind !== 'unit') return;
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp')
      this.step(event, index, event.key === 'ArrowDown' ? 1 : -1);
    else if (event.key === ' ') {
      event.preventDefault();
      this.select(line.unit, index);
    } else if (event.key === 'Enter') void this.router.navigate(['/gear', line.unit.id]);
  }

  private step(event: KeyboardEvent, index: number, by: 1 | -1): void {
    event.preventDefault();
    const lines = this.lines();
    let next = index + by;
    while (next >= 0 && next < lines.length && lines[next].kind !== 'unit') next += by;
    if (next < 0 || next >= lines.length) return;
    this.active.set(next);
    const list = (event.currentTarget as HTMLElement).closest('cdk-virtual-scroll-viewport');
    list?.querySelector<HTMLElement>(`[data-line="${next}"]`)?.focus();
  }

  private pricesByUnit(): Map<string, string> {
    const inputs = this.result()?.inputs;
    const rule = inputs?.rubric.criteria.find((c) => c.kind === 'price');
    if (!inputs || !rule) return new Map();
    return new Map(
      inputs.units.flatMap((u) => {
        const verdict = pricePoints(u, rule);
        return verdict.points === null ? [] : [[u.id, formatPrice(verdict.total, verdict.price.currency)]];
      }),
    );
  }
}

function storedWeights(key: string): Weights | null {
  try {
    const value: unknown = JSON.parse(localStorage.getItem(key) ?? 'null');
    if (typeof value !== 'object' || value === null) return null;
    return Object.fromEntries(
      Object.entries(value).filter((entry): entry is [string, number] => typeof entry[1] === 'number'),
    );
  } catch {
    // Written by hand or by another version: the rubric's weights stand.
    return null;
  }
}
