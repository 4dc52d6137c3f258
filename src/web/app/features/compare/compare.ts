import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  HostListener,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { Slider } from 'primeng/slider';
import { catchError, combineLatest, concatMap, debounceTime, finalize, from, of, switchMap } from 'rxjs';
import { MATCHES, MOST_LANES, type CompareCandidate, type CompareRequest, type CompareSet, type CompareTable, type LaneDifference } from '#contracts/compare'; // prettier-ignore
import type { Problem } from '#contracts/problem';
import { ChoiceField } from '../../ui/field/choice-field';
import { TextField } from '../../ui/field/text-field';
import { HeardClips } from '../../audio/heard-clips';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { stepChoices } from '../../data/choices';
import { isTyping, ScreenKeys } from '../../data/keys';
import { ListeningData, type HeardStep } from '../../data/listening';
import { CurveChart } from '../../ui/curve-chart';
import { stepGrid } from './step-grid';
import { laneTitle } from '../../ui/lane-title';
import { formatNumber } from '../../ui/format';
import { LoopBar } from '../../ui/loop-bar';
import { ProblemBox } from '../../ui/problem-box';
import {
  delayLines,
  describedRows,
  differenceModel,
  figureRows,
  LANE_LOOKS,
  noiseModel,
  spectrumModel,
} from './compare-charts';
import { ComparePair } from './compare-pair';
import { addressOf, exportAddress, pairsOf, requestOf, withoutTake, withTake } from './compare-request';
import { FigureTable } from './figure-table';
import { HiddenNames } from './hidden-names';
import { LaneDeck } from './lane-deck';
import { toldApart } from '../../ui/told-apart';

const MATCH_NAMES: Readonly<Record<(typeof MATCHES)[number], string>> = {
  loudness: 'equal loudness',
  gain: 'equal gain',
  none: 'as recorded',
};

/** Between two looks at where the player is. */
const TELL_MS = 50;

/** Clips of one step side by side: heard in step, at matched level, seen against one of them, hidden when wanted. */
@Component({
  selector: 'sd-compare',
  imports: [
    Button,
    ChoiceField,
    ComparePair,
    CurveChart,
    FigureTable,
    FormsModule,
    LoopBar,
    ProblemBox,
    RouterLink,
    Slider,
    TextField,
  ],
  templateUrl: './compare.html',
  styleUrl: './compare.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Compare {
  /** Of a set that was kept. */
  readonly id = input<string>();
  readonly takes = input<string>();
  readonly zero = input<string>();
  readonly match = input<string>();
  readonly loop = input<string>();

  private readonly data = inject(ListeningData);
  private readonly clips = inject(HeardClips);
  private readonly router = inject(Router);

  protected readonly problem = signal<Problem | null>(null);
  protected readonly set = signal<CompareSet | null>(null);
  protected readonly sets = signal<readonly CompareSet[]>([]);
  protected readonly apart = computed(() => toldApart(this.sets()));
  protected readonly undo = signal<CompareSet | null>(null);
  protected readonly name = signal('');

  /** What is compared, from the address or from the set. */
  protected readonly request = computed((): CompareRequest | null => {
    const set = this.set();
    if (this.id()) return set && { takes: set.takes, zero: set.zero, match: set.match, loop: set.loop };
    return requestOf({ takes: this.takes(), zero: this.zero(), match: this.match(), loop: this.loop() });
  });
  protected readonly table = signal<CompareTable | null>(null);
  /** Where a blind test of these clips is set up: of two halves of a pair, whether it is heard at all. */
  protected readonly testLink = computed((): Record<string, string> => {
    const [table, request] = [this.table(), this.request()];
    const takes = request?.takes.join(',') ?? '';
    if (!table?.pair) return { takes };
    const { withoutTake, withTake, varies } = table.pair;
    return {
      takes: `${withoutTake},${withTake}`,
      design: 'abx',
      category: table.category,
      pair: `${table.lanes[0].unit}: with and without ${varies}`,
    };
  });
  protected readonly differences = signal<ReadonlyMap<string, LaneDifference>>(new Map());
  /** Differences that are still being measured. */
  protected readonly differencesLeft = signal(0);
  /** Lanes that are no pair with the zero line, or a doubtful one, and why. */
  protected readonly doubts = computed(() =>
    (this.table()?.lanes ?? []).flatMap((lane, i) => {
      const remark = this.differences().get(lane.takeId)?.remark ?? '';
      return remark === '' ? [] : [`${this.laneName()(i)}: ${remark}`];
    }),
  );

  protected readonly deck = new LaneDeck(this.clips, (error) => this.problem.set(problemOf(error)));
  protected readonly hidden = new HiddenNames();
  protected readonly volume = this.clips.volumeDb;

  protected readonly steps = toSignal(this.data.steps().pipe(catchError(() => of([] as HeardStep[]))), {
    initialValue: [] as HeardStep[],
  });
  protected readonly stepChoices = computed(() => stepChoices(this.steps()));
  protected readonly step = signal<HeardStep | null>(null);
  protected readonly candidates = signal<readonly CompareCandidate[]>([]);

  protected readonly matches = MATCHES.map((value) => ({ value, label: MATCH_NAMES[value] }));
  protected readonly most = MOST_LANES;
  protected readonly looks = LANE_LOOKS;
  protected readonly formatNumber = formatNumber;

  protected readonly lanes = computed(() => {
    const lanes = this.table()?.lanes ?? [];
    return this.hidden.lanes(lanes.length).map((l) => ({ ...l, lane: lanes[l.index] }));
  });
  /** Units by lane. */
  protected readonly names = computed(() => this.table()?.lanes.map(laneTitle) ?? []);
  protected readonly units = computed(() => [...new Set(this.names())].sort());
  protected readonly right = computed(() => this.hidden.right(this.names()));
  protected readonly zeroIndex = computed(() =>
    Math.max(0, this.table()?.lanes.findIndex((l) => l.takeId === this.request()?.zero) ?? 0),
  );
  protected readonly zeroBuffer = computed(
    () => this.deck.buffers().get(this.table()?.lanes[this.zeroIndex()]?.sha256 ?? '') ?? null,
  );
  protected readonly isLoud = computed(() => this.table()?.lanes.some((l) => l.isLoud) ?? false);
  private readonly laneName = computed(() => {
    const names = this.names();
    return (index: number): string => `${this.hidden.numberOf(index)} ${names[index] ?? ''}`;
  });
  protected readonly spectrum = computed(() => {
    const table = this.table();
    return table && spectrumModel(table, this.laneName());
  });
  protected readonly noise = computed(() => {
    const table = this.table();
    return table?.lanes.some((l) => l.noise) ? noiseModel(table, this.laneName()) : null;
  });
  protected readonly difference = computed(() => {
    const table = this.table();
    return table && table.lanes.length > 1
      ? differenceModel(table, this.zeroIndex(), this.differences(), this.laneName())
      : null;
  });
  protected readonly delays = computed(() => {
    const table = this.table();
    return table ? delayLines(table, this.zeroIndex(), this.differences(), this.laneName()) : [];
  });
  protected readonly figures = computed(() =>
    describedRows(figureRows(this.table()?.lanes ?? [], this.zeroIndex()), this.zeroIndex()),
  );
  protected readonly visiblePair = computed(() => (this.hidden.isHidden() ? null : (this.table()?.pair ?? null)));
  protected readonly lowCut = computed(() => {
    const pair = this.table()?.pair;
    // The fit looks for what the second clip lacks of the first: "without" has to be the zero line.
    const isAsked = pair && this.request()?.zero === pair.withoutTake;
    return isAsked ? (this.differences().get(pair.withTake)?.lowCut ?? null) : null;
  });
  protected readonly available = computed(() => {
    const used = this.request()?.takes ?? [];
    return this.candidates()
      .filter((c) => !used.includes(c.takeId))
      .map((c) => ({ value: c.takeId, label: `${laneTitle(c)}, ${c.date}` }));
  });
  /** Takes of this step by unit and condition; null where all were made in one. */
  protected readonly grid = computed(() => stepGrid(this.candidates()));
  protected isLane(takeId: string): boolean {
    return this.request()?.takes.includes(takeId) ?? false;
  }
  protected readonly exportUrl = computed(() => {
    const request = this.request();
    return request && exportAddress(request, this.set()?.name ?? this.table()?.stepTitle ?? 'Comparison');
  });

  constructor() {
    inject(ScreenKeys).hints.set([
      { keys: '1 … 8', does: 'Switch to a lane, in step' },
      { keys: 'Space', does: 'Play or pause' },
      { keys: 'H', does: 'Hide names and shuffle; again to reveal' },
      { keys: 'L', does: 'Loop off' },
      { keys: '← →', does: 'A second back or on (Shift: five)' },
    ]);
    const crumbs = inject(Breadcrumb).crumbs;
    effect(() => {
      const table = this.table();
      crumbs.set([
        { label: 'Compare', link: '/compare' },
        ...(table ? [{ label: this.set()?.name ?? table.stepTitle, link: null }] : []),
      ]);
    });
    toObservable(this.id)
      .pipe(
        switchMap((id) => (id ? this.data.set(id).pipe(catchError((e: unknown) => this.failed(e, null))) : of(null))),
        takeUntilDestroyed(),
      )
      .subscribe((set) => this.set.set(set));
    // The table is asked for again once alignments are known: a loop lies elsewhere in a clip spoken anew.
    combineLatest([toObservable(this.request), toObservable(computed(() => this.differences().size))])
      .pipe(
        debounceTime(30),
        switchMap(([request]) =>
          request ? this.data.table(request).pipe(catchError((e: unknown) => this.failed(e, null))) : of(null),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((table) => this.show(table));
    toObservable(this.pairsToAsk)
      .pipe(
        switchMap(({ zero, others }) => {
          this.differences.set(new Map());
          this.differencesLeft.set(others.length);
          return from(others).pipe(
            concatMap((other) =>
              this.data.difference(zero, other).pipe(
                catchError((e: unknown) => this.failed(e, null)),
                finalize(() => this.differencesLeft.update((n) => Math.max(0, n - 1))),
              ),
            ),
          );
        }),
        takeUntilDestroyed(),
      )
      .subscribe((found) => {
        if (found) this.differences.update((all) => new Map(all).set(found.takeId, found));
      });
    toObservable(computed(() => this.step() ?? this.stepOfTable()))
      .pipe(
        switchMap((step) =>
          step ? this.data.candidates(step.category, step.step).pipe(catchError(() => of([]))) : of([]),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((list) => this.candidates.set(list));
    this.listSets();
    effect(() => {
      // Gains, maps and clips as they are now; playing goes on.
      const [table, differences] = [this.table(), this.differences()];
      if (table && this.deck.isReady()) untracked(() => this.deck.arm(differences, this.request()?.loop ?? null));
    });
    const timer = setInterval(() => this.deck.tell(), TELL_MS);
    inject(DestroyRef).onDestroy(() => {
      clearInterval(timer);
      this.deck.leave();
    });
  }

  private failed<T>(error: unknown, instead: T) {
    this.problem.set(problemOf(error));
    return of(instead);
  }

  private listSets(): void {
    this.data.sets().subscribe({ next: (sets) => this.sets.set(sets), error: () => this.sets.set([]) });
  }

  /** The lanes whose difference is wanted, without a new question when only levels change. */
  private readonly pairsToAsk = computed(() => pairsOf(this.request()), {
    equal: (a, b) => a.zero === b.zero && a.others.join() === b.others.join(),
  });

  private stepOfTable(): HeardStep | null {
    const table = this.table();
    return table ? (this.steps().find((s) => s.step === table.step && s.category === table.category) ?? null) : null;
  }

  private show(table: CompareTable | null): void {
    const before = this.table();
    this.table.set(table);
    this.deck.show(table?.lanes ?? []);
    if (!table) return;
    this.problem.set(null);
    if (before?.lanes.map((l) => l.takeId).join() !== table.lanes.map((l) => l.takeId).join()) this.hidden.show();
  }

  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey || !this.table()) return;
    const number = Number(event.key);
    const isButton =
      (event.target as HTMLElement | null)?.closest('button, [role="slider"], [role="combobox"]') !== null;
    const step = event.shiftKey ? 5 : 1;
    if (number >= 1 && number <= this.lanes().length) this.deck.choose(this.lanes()[number - 1].index);
    else if (event.key === ' ' && !isButton) void this.deck.toggle();
    else if (event.key.toLowerCase() === 'h') this.hideOrReveal();
    else if (event.key.toLowerCase() === 'l') this.change({ loop: null });
    else if (event.key === 'ArrowLeft' && !isButton) this.deck.seek(this.deck.atS() - step);
    else if (event.key === 'ArrowRight' && !isButton) this.deck.seek(this.deck.atS() + step);
    else return;
    event.preventDefault();
  }

  protected setVolume(decibels: number | undefined): void {
    this.volume.set(decibels ?? 0);
    this.deck.setVolume(this.volume());
  }

  protected hideOrReveal(): void {
    const lane = this.hidden.toggle(this.names().length);
    // What sounds now must not tell which of the new lanes it is.
    if (lane !== null) this.deck.choose(lane);
  }

  /** Another request: in the address, so that it can be linked and the way back works. */
  protected change(part: Partial<CompareRequest>): void {
    const request = this.request();
    const set = this.set();
    if (set) this.set.set({ ...set, ...part });
    else if (request) this.goTo({ ...request, ...part }, part.takes === undefined);
  }

  private goTo(request: CompareRequest | null, replaceUrl = false): void {
    void this.router.navigate(['/compare'], { queryParams: request ? addressOf(request) : {}, replaceUrl });
  }

  /** A set that lanes come to or leave is another comparison. */
  protected add(takeId: string | null): void {
    if (takeId) this.goTo(withTake(this.request(), takeId));
  }

  protected removeLane(takeId: string): void {
    const request = this.request();
    if (request) this.goTo(withoutTake(request, takeId));
  }

  protected keep(): void {
    const request = this.request();
    if (!request) return;
    this.data.keep(this.name() || (this.table()?.stepTitle ?? 'Comparison'), request).subscribe({
      next: (set) => {
        this.listSets();
        void this.router.navigate(['/compare', set.id]);
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  protected removeSet(set: CompareSet, removed: boolean): void {
    this.data.removeSet(set.id, removed).subscribe({
      next: () => {
        this.undo.set(removed ? set : null);
        this.listSets();
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}
