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
import { SAME_TIME } from '#core/audio/phrase-alignment';
import { lowCutWords } from '#core/measure/low-cut';
import { QUANTITY_IDS, quantity, type QuantityId } from '#core/measure/registry';
import { removalWords } from '#core/measure/removed-by-band';
import { shuffled } from '#core/stats/shuffle';
import { MATCHES, MOST_LANES, type CompareCandidate, type CompareRequest, type CompareSet, type CompareTable, type LaneDifference } from '#contracts/compare'; // prettier-ignore
import type { Problem } from '#contracts/problem';
import { ChoiceField } from '../../ui/field/choice-field';
import { TextField } from '../../ui/field/text-field';
import { HeardClips } from '../../audio/heard-clips';
import type { LanePlayer, Loop } from '../../audio/lane-player';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { stepChoices } from '../../data/choices';
import { isTyping, ScreenKeys } from '../../data/keys';
import { ListeningData, type HeardStep } from '../../data/listening';
import { CurveChart } from '../../ui/curve-chart';
import { formatNumber } from '../../ui/format';
import { LoopBar } from '../../ui/loop-bar';
import { ProblemBox } from '../../ui/problem-box';
import { differenceModel, figureRows, LANE_LOOKS, noiseModel, spectrumModel } from './compare-charts';
import { toldApart } from '../../ui/told-apart';

const MATCH_NAMES: Readonly<Record<(typeof MATCHES)[number], string>> = {
  loudness: 'equal loudness',
  gain: 'equal gain',
  none: 'as recorded',
};

/** Clips of one step side by side: heard in step, at matched level, seen against one of them, hidden when wanted. */
@Component({
  selector: 'sd-compare',
  imports: [Button, ChoiceField, CurveChart, FormsModule, LoopBar, ProblemBox, RouterLink, Slider, TextField],
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
  private readonly crumbs = inject(Breadcrumb).crumbs;
  private readonly destroyed = inject(DestroyRef);
  private player: LanePlayer | null = null;

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
    const takes = (this.takes() ?? '')
      .split(',')
      .filter((t) => /^\d+$/.test(t))
      .slice(0, MOST_LANES);
    if (takes.length === 0) return null;
    const zero = this.zero();
    const [from, to] = (this.loop() ?? '').split('-').map(Number);
    return {
      takes,
      zero: zero && takes.includes(zero) ? zero : takes[0],
      match: MATCHES.find((m) => m === this.match()) ?? 'loudness',
      loop: to - from >= 0.4 ? { fromS: from, toS: to } : null,
    };
  });
  protected readonly table = signal<CompareTable | null>(null);
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
  private readonly buffers = signal<ReadonlyMap<string, AudioBuffer>>(new Map());

  protected readonly active = signal(0);
  protected readonly isPlaying = signal(false);
  protected readonly atS = signal(0);
  protected readonly lengthS = signal(0);
  protected readonly volume = this.clips.volumeDb;

  /** Order in which lanes are shown; another one while names are hidden. */
  protected readonly order = signal<readonly number[] | null>(null);
  protected readonly guesses = signal<Readonly<Record<number, string>>>({});
  protected readonly isRevealed = signal(false);
  protected readonly isHidden = computed(() => this.order() !== null && !this.isRevealed());

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
  protected readonly removalWords = removalWords;

  protected readonly lanes = computed(() => {
    const table = this.table();
    if (!table) return [];
    const order = this.order() ?? table.lanes.map((_, i) => i);
    return order.map((index, shown) => ({ index, shown, lane: table.lanes[index] }));
  });
  protected readonly zeroIndex = computed(() =>
    Math.max(0, this.table()?.lanes.findIndex((l) => l.takeId === this.request()?.zero) ?? 0),
  );
  protected readonly zeroBuffer = computed(
    () => this.buffers().get(this.table()?.lanes[this.zeroIndex()]?.sha256 ?? '') ?? null,
  );
  protected readonly isReady = computed(() => {
    const table = this.table();
    return table !== null && table.lanes.every((l) => this.buffers().has(l.sha256));
  });
  protected readonly isLoud = computed(() => this.table()?.lanes.some((l) => l.isLoud) ?? false);
  private readonly laneName = computed(() => {
    const table = this.table();
    const order = this.order();
    return (index: number): string => `${(order?.indexOf(index) ?? index) + 1} ${table?.lanes[index].unit ?? ''}`;
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
  protected readonly figures = computed(() => {
    const table = this.table();
    return table
      ? figureRows(table.lanes, this.zeroIndex())
          .map((row) => ({ ...row, ...describe(row.quantity) }))
          // Level and length of a recording say nothing of the unit.
          .filter((row) => row.group !== 'recording')
      : [];
  });
  protected readonly lowCutWords = lowCutWords;
  protected readonly lowCut = computed(() => {
    const pair = this.table()?.pair;
    const request = this.request();
    if (!pair || !request) return null;
    // The fit looks for what the second clip lacks of the first: "without" has to be the zero line.
    return request.zero === pair.withoutTake ? (this.differences().get(pair.withTake) ?? null) : null;
  });
  protected readonly visiblePair = computed(() => (this.isHidden() ? null : (this.table()?.pair ?? null)));
  protected readonly removedRows = computed(() =>
    (this.table()?.pair?.removed ?? []).filter((r) => r.centreHz >= 60 && r.centreHz <= 16_000),
  );
  protected readonly available = computed(() => {
    const used = this.request()?.takes ?? [];
    return this.candidates()
      .filter((c) => !used.includes(c.takeId))
      .map((c) => ({ value: c.takeId, label: `${c.unit}, ${c.date}` }));
  });
  protected readonly right = computed(() => {
    const table = this.table();
    return table ? this.lanes().filter(({ index, lane }) => this.guesses()[index] === lane.unit).length : 0;
  });
  protected readonly units = computed(() => [...new Set(this.table()?.lanes.map((l) => l.unit) ?? [])].sort());
  protected readonly exportUrl = computed(() => {
    const request = this.request();
    if (!request) return null;
    const query = new URLSearchParams({ takes: request.takes.join(','), zero: request.zero, match: request.match, name: this.set()?.name ?? this.table()?.stepTitle ?? 'Comparison' }); // prettier-ignore
    if (request.loop) {
      query.set('from', String(request.loop.fromS));
      query.set('to', String(request.loop.toS));
    }
    return `/api/compare/export.zip?${query}`;
  });

  constructor() {
    inject(ScreenKeys).hints.set([
      { keys: '1 … 8', does: 'Switch to a lane, in step' },
      { keys: 'Space', does: 'Play or pause' },
      { keys: 'H', does: 'Hide names and shuffle; again to reveal' },
      { keys: 'L', does: 'Loop off' },
      { keys: '← →', does: 'A second back or on (Shift: five)' },
    ]);
    effect(() => {
      const table = this.table();
      this.crumbs.set([
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
    toObservable(computed(() => this.pairsToAsk()))
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
      const [table, buffers, differences] = [this.table(), this.buffers(), this.differences()];
      untracked(() => this.arm(table, buffers, differences));
    });
    const timer = setInterval(() => this.tell(), 50);
    this.destroyed.onDestroy(() => {
      clearInterval(timer);
      this.player?.close();
      this.clips.forget();
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
  private readonly pairsToAsk = computed(
    () => {
      const request = this.request();
      return { zero: request?.zero ?? '', others: request ? request.takes.filter((t) => t !== request.zero) : [] };
    },
    { equal: (a, b) => a.zero === b.zero && a.others.join() === b.others.join() },
  );

  private stepOfTable(): HeardStep | null {
    const table = this.table();
    return table ? (this.steps().find((s) => s.step === table.step && s.category === table.category) ?? null) : null;
  }

  private show(table: CompareTable | null): void {
    const before = this.table();
    this.table.set(table);
    if (!table) return;
    this.problem.set(null);
    if (before?.lanes.map((l) => l.takeId).join() !== table.lanes.map((l) => l.takeId).join()) {
      this.order.set(null);
      this.isRevealed.set(false);
      this.guesses.set({});
      this.active.set(Math.min(this.active(), table.lanes.length - 1));
    }
    for (const { sha256 } of table.lanes)
      if (!this.buffers().has(sha256))
        this.clips.clip(`/api/clips/${sha256}/audio`).then(
          (buffer) => this.buffers.update((all) => new Map(all).set(sha256, buffer)),
          (error: unknown) => this.problem.set(problemOf(error)),
        );
  }

  private arm(
    table: CompareTable | null,
    buffers: ReadonlyMap<string, AudioBuffer>,
    differences: ReadonlyMap<string, LaneDifference>,
  ): void {
    if (!table || !table.lanes.every((l) => buffers.has(l.sha256))) return;
    this.player ??= this.clips.player();
    this.player.setLanes(
      table.lanes.flatMap((lane) => {
        const buffer = buffers.get(lane.sha256);
        return buffer
          ? [{ buffer, gain: 10 ** (lane.appliedDb / 20), map: differences.get(lane.takeId)?.map ?? SAME_TIME }] // prettier-ignore
          : [];
      }),
    );
    this.player.setLoop(this.request()?.loop ?? null);
    this.lengthS.set(this.player.lengthS);
  }

  private tell(): void {
    if (!this.player) return;
    this.isPlaying.set(this.player.isPlaying);
    if (this.player.isPlaying) this.atS.set(this.player.positionS());
  }

  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey || !this.table()) return;
    const number = Number(event.key);
    const isButton =
      (event.target as HTMLElement | null)?.closest('button, [role="slider"], [role="combobox"]') !== null;
    if (number >= 1 && number <= this.lanes().length) this.choose(this.lanes()[number - 1].index);
    else if (event.key === ' ' && !isButton) void this.toggle();
    else if (event.key.toLowerCase() === 'h') this.hideOrReveal();
    else if (event.key.toLowerCase() === 'l') this.change({ loop: null });
    else if (event.key === 'ArrowLeft' && !isButton) this.seek(Math.max(0, this.atS() - (event.shiftKey ? 5 : 1)));
    else if (event.key === 'ArrowRight' && !isButton) this.seek(this.atS() + (event.shiftKey ? 5 : 1));
    else return;
    event.preventDefault();
  }

  protected choose(index: number): void {
    this.player?.switchTo(index);
    this.active.set(index);
  }

  protected async toggle(): Promise<void> {
    if (!this.player || !this.isReady()) return;
    if (this.player.isPlaying) this.player.pause();
    else if (await this.clips.ready()) {
      this.player.switchTo(this.active());
      this.player.play();
    }
    this.tell();
  }

  protected seek(atS: number): void {
    this.player?.seek(atS);
    this.atS.set(Math.min(atS, this.lengthS()));
  }

  protected setVolume(decibels: number | undefined): void {
    this.volume.set(decibels ?? 0);
    this.player?.setVolume(this.volume());
  }

  protected setLoop(loop: Loop | null): void {
    this.change({ loop });
  }

  protected hideOrReveal(): void {
    const table = this.table();
    if (!table || table.lanes.length < 2) return;
    if (this.isHidden()) this.isRevealed.set(true);
    else {
      const order = shuffled(
        table.lanes.map((_, i) => i),
        `${Date.now()}/${Math.random()}`,
      );
      this.order.set(order);
      this.isRevealed.set(false);
      this.guesses.set({});
      // What sounds now must not tell which of the new lanes it is.
      this.choose(order[0]);
    }
  }

  protected showNames(): void {
    this.order.set(null);
    this.isRevealed.set(false);
  }

  protected guess(index: number, unit: string): void {
    this.guesses.update((all) => ({ ...all, [index]: unit }));
  }

  /** Another request: in the address, so that it can be linked and the way back works. */
  protected change(part: Partial<CompareRequest>): void {
    const request = this.request();
    if (!request) return;
    const next = { ...request, ...part };
    const set = this.set();
    if (set) this.set.set({ ...set, ...part });
    else
      void this.router.navigate(['/compare'], {
        queryParams: queryOf(next),
        replaceUrl: part.takes === undefined,
      });
  }

  protected add(takeId: string | null): void {
    if (!takeId) return;
    const request = this.request();
    const takes = [...(request?.takes ?? []), takeId];
    if (request && !this.set()) this.change({ takes });
    else void this.router.navigate(['/compare'], { queryParams: queryOf({ takes, zero: takes[0], match: request?.match ?? 'loudness', loop: request?.loop ?? null }) }); // prettier-ignore
  }

  protected removeLane(takeId: string): void {
    const request = this.request();
    if (!request) return;
    const takes = request.takes.filter((t) => t !== takeId);
    if (takes.length === 0) void this.router.navigate(['/compare']);
    else void this.router.navigate(['/compare'], { queryParams: queryOf({ ...request, takes, zero: takes.includes(request.zero) ? request.zero : takes[0] }) }); // prettier-ignore
  }

  protected keep(): void {
    const request = this.request();
    if (!request) return;
    const { takes, zero, match, loop } = request;
    this.data.keep(this.name() || (this.table()?.stepTitle ?? 'Comparison'), { takes, zero, match, loop }).subscribe({
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

function queryOf({ takes, zero, match, loop }: CompareRequest): Record<string, string> {
  return {
    takes: takes.join(','),
    ...(zero === takes[0] ? {} : { zero }),
    ...(match === 'loudness' ? {} : { match }),
    ...(loop ? { loop: `${loop.fromS.toFixed(2)}-${loop.toS.toFixed(2)}` } : {}),
  };
}

function describe(id: string): { title: string; unit: string; decimals: number; definition: string; group: string } {
  if (!(QUANTITY_IDS as readonly string[]).includes(id))
    return { title: id, unit: '', decimals: 1, definition: '', group: '' };
  const { name, unit, decimals, definition, group } = quantity(id as QuantityId);
  return { title: name, unit, decimals, definition, group };
}
