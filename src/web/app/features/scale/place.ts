import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  HostListener,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { EMPTY, Subject, catchError, combineLatest, from, map, of, switchMap } from 'rxjs';
import { SAME_TIME } from '#core/audio/phrase-alignment';
import { expectedWords, goalWords } from '#core/rules/placing-words';
import { shuffled } from '#core/stats/shuffle';
import { ATTRIBUTES } from '#contracts/listening';
import { letterOf } from '#core/rules/listening/letters';
import type { Problem } from '#contracts/problem';
import type { Placing } from '#contracts/scale';
import { TickField } from '../../ui/field/tick-field';
import { ChoiceField } from '../../ui/field/choice-field';
import { TextField } from '../../ui/field/text-field';
import { HeardClips } from '../../audio/heard-clips';
import type { LanePlayer } from '../../audio/lane-player';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';
import { isTyping, ScreenKeys } from '../../data/keys';
import { newNumber } from '../../data/new-number';
import { ListeningData, type HeardStep } from '../../data/listening';
import { formatNumber, plusMinus } from '../../ui/format';
import { LetterChips } from '../../ui/letter-chips';
import { ProblemBox } from '../../ui/problem-box';
import { ATTRIBUTE_NAMES } from '../listening/design-words';
import { pairAnswer, specimensOf, toggledInOrder } from './placing-answer';

const LISTENER = 'sediment.placing-listener';

interface Offered {
  readonly code: string;
  readonly takeId: string;
  readonly specimenId: string;
}

/** Places a new unit: what is to be known, the question that tells most of it, how many more are to be expected. */
@Component({
  selector: 'sd-place',
  imports: [LetterChips, Button, ChoiceField, ProblemBox, RouterLink, TextField, TickField],
  templateUrl: './place.html',
  styleUrl: './scale.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Place {
  readonly id = input.required<string>();
  private readonly data = inject(ListeningData);
  private readonly clips = inject(HeardClips);
  private player: LanePlayer | null = null;

  protected readonly placing = signal<Placing | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  /** Orders of four settle a place in less than half the questions of pairs (docs/coverage.md). */
  protected readonly kind = signal<'pair' | 'heat'>('heat');
  protected readonly goal = signal<'stratum' | 'half' | 'beats'>('half');
  protected readonly than = signal<string | null>(null);
  protected readonly usesFigures = signal(false);
  protected readonly goalWords = goalWords;
  protected readonly expectedWords = expectedWords;
  protected readonly attribute = signal<(typeof ATTRIBUTES)[number]>('preference');
  protected readonly steps = toSignal(this.data.steps().pipe(catchError(() => of([] as HeardStep[]))), {
    initialValue: [] as HeardStep[],
  });
  private readonly specimens = toSignal(inject(CatalogueData).specimens, { initialValue: LOADING });
  /** Kind of the unit: it is placed among its like. */
  private readonly kindOfUnit = computed(
    () => this.specimens().value?.find((s) => s.id === this.id())?.category ?? null,
  );
  protected readonly stepChoices = computed(() =>
    this.steps()
      .filter((s) => s.category === this.kindOfUnit())
      .map((s) => ({ label: s.title, value: s.step })),
  );
  /** Speech is what most are placed by; of a kind without it, the step that most units have. */
  protected readonly step = linkedSignal(() => {
    const steps = this.stepChoices();
    return steps.length === 0 || steps.some((s) => s.value === 'speech') ? 'speech' : steps[0].value;
  });
  protected readonly others = computed(() => this.placing()?.others.map((o) => ({ label: o.name, value: o.id })) ?? []);
  protected readonly listener = signal(localStorage.getItem(LISTENER) ?? '');
  protected readonly offered = signal<readonly Offered[]>([]);
  protected readonly chips = computed(() => this.offered().map((o) => ({ code: o.code, spoken: `Clip ${o.code}` })));
  protected readonly isReady = signal(false);
  protected readonly isBusy = signal(false);
  protected readonly playing = signal<string | null>(null);
  protected readonly heard = signal<ReadonlySet<string>>(new Set());
  protected readonly order = signal<readonly string[]>([]);
  /** Widths of the interval, question by question. */
  protected readonly history = signal<readonly (readonly [number, number])[]>([]);

  /** Takes of the question that stands. */
  private readonly asked = new Subject<readonly string[]>();
  /** Of this placing: what is taken back is an answer of it. */
  private readonly number = newNumber();

  protected readonly kinds = [
    { value: 'heat' as const, label: 'orders of four' },
    { value: 'pair' as const, label: 'pairs' },
  ];
  protected readonly goals = [
    { value: 'half' as const, label: 'Better or lower half?' },
    { value: 'beats' as const, label: 'Does it beat a yardstick?' },
    { value: 'stratum' as const, label: 'Which stratum?' },
  ];
  protected readonly attributes = ATTRIBUTES.map((value) => ({ value, label: ATTRIBUTE_NAMES[value] }));
  protected readonly formatNumber = formatNumber;
  protected readonly plusMinus = plusMinus;
  protected readonly isHeat = computed(() => this.placing()?.question?.kind === 'heat');
  protected readonly bars = computed(() => {
    const shares = this.placing()?.probabilities ?? [];
    const most = Math.max(0.01, ...shares);
    return shares.map((share, i) => ({ stratum: i + 1, share, height: (100 * share) / most }));
  });
  protected readonly allHeard = computed(() => this.isReady() && this.offered().every((o) => this.heard().has(o.code)));

  constructor() {
    inject(ScreenKeys).hints.set([
      { keys: '1 … 4', does: 'Hear a clip, in step' },
      { keys: 'Space', does: 'Stop' },
    ]);
    const crumbs = inject(Breadcrumb).crumbs;
    effect(() =>
      crumbs.set([
        { label: 'Scale', link: '/scale' },
        { label: `Place ${this.placing()?.name ?? '…'}`, link: null },
      ]),
    );
    combineLatest([toObservable(this.id), toObservable(computed(() => this.request()))])
      .pipe(
        switchMap(([id, request]) =>
          this.data.place(id, request).pipe(
            catchError((error: unknown) => {
              this.problem.set(problemOf(error));
              return of(null);
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((placing) => {
        this.history.set([]);
        if (placing) this.take(placing);
      });
    this.asked
      .pipe(
        switchMap((takes) => (takes.length > 0 ? this.lanesOf(takes) : EMPTY)),
        takeUntilDestroyed(),
      )
      .subscribe((lanes) => {
        this.player ??= this.clips.player();
        this.player.setLanes(lanes);
        this.isReady.set(true);
      });
    inject(DestroyRef).onDestroy(() => {
      this.player?.close();
      this.clips.forget();
    });
  }

  private whose() {
    return { placing: this.number, listener: this.listener().trim() || 'the reviewer' };
  }

  private request() {
    return {
      step: this.step(),
      kind: this.kind(),
      attribute: this.attribute(),
      goal: this.goal(),
      than: this.goal() === 'beats' ? this.than() : null,
      usesFigures: this.usesFigures(),
    };
  }

  private take(placing: Placing): void {
    this.placing.set(placing);
    this.problem.set(null);
    this.history.update((all) => [...all, placing.place90]);
    this.player?.pause();
    this.playing.set(null);
    this.heard.set(new Set());
    this.order.set([]);
    this.isReady.set(false);
    // A new order every time, under letters: the new one is not always A.
    const takes = shuffled(placing.question?.takes ?? [], `${Date.now()}/${Math.random()}`);
    this.offered.set(takes.map((t, i) => ({ ...t, code: letterOf(i) })));
    this.asked.next(takes.map((t) => t.takeId));
  }

  /** Clips of the question that stands; those of one that was replaced meanwhile never arrive. */
  private lanesOf(takes: readonly string[]) {
    return this.data.table({ takes: [...takes], zero: takes[0], match: 'loudness', loop: null }).pipe(
      switchMap(({ lanes }) =>
        from(Promise.all(lanes.map((l) => this.clips.clip(`/api/clips/${l.sha256}/audio`)))).pipe(
          map((buffers) =>
            buffers.map((buffer, i) => ({ buffer, gain: 10 ** (lanes[i].appliedDb / 20), map: SAME_TIME })),
          ),
        ),
      ),
      catchError((error: unknown) => {
        this.problem.set(problemOf(error));
        return EMPTY;
      }),
    );
  }

  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    const onButton = (event.target as HTMLElement | null)?.closest('button, [role="combobox"]') !== null;
    const offered = this.offered().at(Number(event.key) - 1);
    if (/^[1-6]$/.test(event.key) && offered) void this.hear(offered.code);
    else if (event.key === ' ' && !onButton) this.stop();
    else return;
    event.preventDefault();
  }

  protected async hear(code: string): Promise<void> {
    if (!this.player || !this.isReady() || !(await this.clips.ready())) return;
    if (this.playing() === code) return this.stop();
    this.player.switchTo(this.offered().findIndex((o) => o.code === code));
    if (!this.player.isPlaying) this.player.play();
    this.playing.set(code);
    this.heard.update((all) => new Set(all).add(code));
  }

  protected stop(): void {
    this.player?.pause();
    this.playing.set(null);
  }

  protected setListener(name: string): void {
    this.listener.set(name);
    localStorage.setItem(LISTENER, name);
  }

  protected addToOrder(code: string): void {
    this.order.update((order) => toggledInOrder(order, code));
  }

  /** @param first - code of the preferred clip of a pair; null for no preference */
  protected answerPair(first: string | null): void {
    const { codes, isTie } = pairAnswer(
      this.offered().map((o) => o.code),
      first,
    );
    this.send(codes, isTie);
  }

  protected answerHeat(): void {
    this.send(this.order(), false);
  }

  private send(codes: readonly string[], isTie: boolean): void {
    this.isBusy.set(true);
    this.data
      .placeAnswer(this.id(), {
        ...this.request(),
        ...this.whose(),
        order: specimensOf(codes, this.offered()),
        offered: this.offered().map((o) => o.specimenId),
        isTie,
      })
      .subscribe({
        next: (placing) => {
          this.isBusy.set(false);
          this.take(placing);
        },
        error: (error: unknown) => {
          this.isBusy.set(false);
          this.problem.set(problemOf(error));
        },
      });
  }

  protected undo(): void {
    this.data.placeUndo(this.id(), { ...this.request(), ...this.whose() }).subscribe({
      next: (placing) => this.take(placing),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}
