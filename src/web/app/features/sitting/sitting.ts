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
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { toObservable } from '@angular/core/rxjs-interop';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Button } from 'primeng/button';
import { Slider } from 'primeng/slider';
import { switchMap } from 'rxjs';
import { SAME_TIME } from '#core/audio/phrase-alignment';
import type { HeardWord } from '#core/rules/listening/vocabulary';
import type { AboutListener, Reveal, SendAnswer, SittingState, Words } from '#contracts/listening';
import type { Problem } from '#contracts/problem';
import { ChoiceField, type Choice } from '../../ui/field/choice-field';
import { TextField } from '../../ui/field/text-field';
import { HeardClips } from '../../audio/heard-clips';
import type { LanePlayer } from '../../audio/lane-player';
import { problemOf } from '../../data/api';
import { isTyping } from '../../data/keys';
import { SittingData } from '../../data/sitting';
import { formatNumber } from '../../ui/format';
import { Refusals } from '../../ui/field/refusals';
import { LetterChips } from '../../ui/letter-chips';
import { WordChips } from '../../ui/word-chips';
import { chipOf } from './chip-of';
import { ProblemBox } from '../../ui/problem-box';
import { HeadphoneCheck } from './headphone-check';
import { PanelSeatPage } from './panel-seat';
import { beginOrder, gapName, move, place, type PlacingOrder } from './placing-order';

/** How long a finished listener's page waits before it asks whether the test has been revealed. */
const ASK_AGAIN_MS = 5000;
/** Words of the continuous quality scale of ITU-R BS.1534, from the bottom. */
const QUALITY = ['bad', 'poor', 'fair', 'good', 'excellent'] as const;

/** A listener's page: letters, the question, and nothing else. Works by touch and by keyboard. */
@Component({
  selector: 'sd-sitting',
  imports: [
    PanelSeatPage,
    LetterChips,
    Button,
    ChoiceField,
    FormsModule,
    HeadphoneCheck,
    ProblemBox,
    Slider,
    TextField,
    WordChips,
  ],
  templateUrl: './sitting.html',
  styleUrl: './sitting.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Sitting {
  readonly key = input.required<string>();
  private readonly refusals = inject(Refusals);
  private readonly data = inject(SittingData);
  private readonly clips = inject(HeardClips);
  private player: LanePlayer | null = null;

  protected readonly state = signal<SittingState | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly reveal = signal<Reveal | null>(null);
  protected readonly isBusy = signal(false);
  /** Clips of the trial are all there: only then may any be played, so that waiting tells nothing. */
  protected readonly isReady = signal(false);
  protected readonly heard = signal<ReadonlySet<string>>(new Set());
  protected readonly playing = signal<string | null>(null);
  protected readonly takesBreak = signal(false);
  protected readonly volume = this.clips.volumeDb;

  protected readonly order = signal<PlacingOrder>({ placed: [], waiting: [] });
  protected readonly chosen = signal<string | null | undefined>(undefined);
  protected readonly nameChoices = (trial: {
    readonly names: readonly { id: string; name: string }[];
  }): Choice<string>[] => trial.names.map((n) => ({ label: n.name, value: n.id }));
  protected readonly names = signal<Readonly<Record<string, string>>>({});
  protected readonly ratings = signal<Readonly<Partial<Record<string, number>>>>({});
  protected readonly words = signal<Words>({});
  protected readonly wordsOf = signal<string | null>(null);
  private begunAt = 0;

  protected readonly about = signal<AboutListener>({ voice: 'unsaid', hearing: 'unsaid', device: 'unsaid' });
  protected readonly aboutQuestions = [
    { key: 'device' as const, label: 'What do you listen with?', answers: [['headphones', 'Headphones'], ['earphones', 'Earphones'], ['loudspeakers', 'Loudspeakers'], ['built-in', 'Built-in speaker'], ['unsaid', 'Rather not say']] as const }, // prettier-ignore
    { key: 'hearing' as const, label: 'How is your hearing?', answers: [['normal', 'As usual for my age'], ['impaired', 'Impaired'], ['unsaid', 'Rather not say']] as const }, // prettier-ignore
    { key: 'voice' as const, label: 'Which voices matter to you?', answers: [['lower', 'Lower ones'], ['higher', 'Higher ones'], ['any', 'All alike'], ['unsaid', 'Rather not say']] as const }, // prettier-ignore
  ];
  protected readonly quality = QUALITY;
  protected readonly formatNumber = formatNumber;
  protected readonly link = computed(() => `${location.origin}/listen/${this.key()}`);

  protected readonly trial = computed(() => this.state()?.trial ?? null);
  /** Everything that can be played in this trial. */
  protected readonly slots = computed(() => {
    const trial = this.trial();
    if (!trial) return [];
    return [...trial.codes, ...(trial.kind === 'abx' ? ['X'] : []), ...(trial.reference ? [trial.reference] : [])];
  });
  protected readonly chips = computed(() => {
    const trial = this.trial();
    return trial ? this.slots().map((slot) => chipOf(trial, slot)) : [];
  });
  protected readonly gaps = computed(() => {
    const order = this.order();
    return order.waiting.length === 0 ? [] : order.placed.map((_, i) => i).concat(order.placed.length).map((at) => ({ at, name: gapName(order, at) })); // prettier-ignore
  });
  protected readonly canSend = computed(() => {
    const trial = this.trial();
    if (!trial || this.isBusy() || !this.isReady()) return false;
    if (!this.slots().every((s) => this.heard().has(s))) return false;
    switch (trial.kind) {
      case 'familiarise':
        return true;
      case 'order':
        return this.order().waiting.length === 0;
      case 'pair':
      case 'abx':
        return this.chosen() !== undefined;
      case 'names':
        return new Set(trial.codes.map((c) => this.names()[c]).filter(Boolean)).size === trial.codes.length;
      case 'ratings':
        return trial.codes.every((c) => this.ratings()[c] !== undefined);
    }
  });
  protected readonly missing = computed(() => {
    const left = this.slots().filter((s) => !this.heard().has(s));
    return this.isReady() && left.length > 0 ? `Not heard yet: ${left.join(', ')}` : '';
  });

  constructor() {
    toObservable(this.key)
      .pipe(
        switchMap((key) => this.data.state(key)),
        takeUntilDestroyed(),
      )
      .subscribe({ next: (state) => this.take(state), error: (e: unknown) => this.problem.set(problemOf(e)) });
    effect(() => this.player?.setVolume(this.volume()));
    const timer = setInterval(() => this.askAgain(), ASK_AGAIN_MS);
    const ticking = setInterval(() => {
      if (this.player && !this.player.isPlaying && this.playing() !== null) this.playing.set(null);
    }, 100);
    inject(DestroyRef).onDestroy(() => {
      clearInterval(timer);
      clearInterval(ticking);
      this.player?.close();
    });
  }

  private take(state: SittingState): void {
    const before = this.trial();
    this.state.set(state);
    this.problem.set(null);
    const trial = state.trial;
    if (trial && before?.ordinal !== trial.ordinal) void this.prepare();
    if (!trial && state.isRevealed && !this.reveal()) this.showReveal();
  }

  /** Fetches all clips of the trial before any can be played. */
  private async prepare(): Promise<void> {
    const trial = this.trial();
    if (!trial) return;
    this.player?.pause();
    this.playing.set(null);
    this.isReady.set(false);
    this.heard.set(new Set());
    this.order.set(beginOrder(trial.codes));
    this.chosen.set(undefined);
    this.names.set({});
    this.ratings.set({});
    this.words.set({});
    this.wordsOf.set(null);
    this.clips.forget();
    try {
      const buffers = await Promise.all(
        this.slots().map((slot) => this.clips.clip(this.data.clipUrl(this.key(), trial.ordinal, slot))),
      );
      if (this.trial()?.ordinal !== trial.ordinal) return;
      this.player ??= this.clips.player();
      this.player.setLanes(buffers.map((buffer) => ({ buffer, gain: 1, map: SAME_TIME })));
      this.isReady.set(true);
      this.begunAt = Date.now();
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  protected askAgain(): void {
    const state = this.state();
    if (!state || state.trial || this.reveal()) return;
    this.data.state(this.key()).subscribe({ next: (next) => this.take(next), error: () => undefined });
  }

  private showReveal(): void {
    this.data.reveal(this.key()).subscribe({
      next: (reveal) => this.reveal.set(reveal),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    const trial = this.trial();
    const state = this.state();
    if (!trial || !state || state.needsAbout || state.needsHeadphones || isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return; // prettier-ignore
    const onButton = (event.target as HTMLElement | null)?.closest('button, [role="slider"]') !== null;
    const pressed = event.key.toUpperCase();
    const slot = this.slots().find((s) => s === pressed) ?? this.slots().at(Number(event.key) - 1);
    if (/^[1-9]$/.test(event.key) || this.slots().includes(pressed)) {
      if (slot) void this.hear(slot);
    } else if (event.key === ' ' && !onButton) void this.hear(this.playing() ?? this.slots()[0], true);
    else if (event.key === 'Enter' && !onButton && this.canSend()) this.send();
    else return;
    event.preventDefault();
  }

  /** Plays a clip, or switches to it at the same moment; pressed again, it stops. */
  protected async hear(slot: string, stops = false): Promise<void> {
    if (!this.isReady() || !this.player || !(await this.clips.ready())) return;
    const index = this.slots().indexOf(slot);
    if (this.player.isPlaying && this.playing() === slot && stops) {
      this.player.pause();
      this.playing.set(null);
      return;
    }
    this.player.switchTo(index);
    if (!this.player.isPlaying) this.player.play();
    this.playing.set(slot);
    this.heard.update((all) => new Set(all).add(slot));
  }

  protected setVolume(decibels: number | undefined): void {
    this.volume.set(decibels ?? 0);
  }

  protected placeAt(at: number): void {
    this.order.update((order) => place(order, at));
  }

  protected moveBy(code: string, by: -1 | 1): void {
    this.order.update((order) => move(order, code, by));
  }

  protected placeAgain(): void {
    this.order.set(beginOrder(this.trial()?.codes ?? []));
  }

  protected label(code: string): string {
    const name = this.chips().find((c) => c.code === code)?.name;
    return name === undefined ? code : `${code} ${name}`;
  }

  protected choose(code: string | null): void {
    this.chosen.set(code);
  }

  protected nameClip(code: string, id: string): void {
    // A name belongs to one clip: given to another, it leaves the first.
    this.names.update((all) => ({
      ...Object.fromEntries(Object.entries(all).filter(([, v]) => v !== id)),
      [code]: id,
    }));
  }

  protected rate(code: string, value: number | undefined): void {
    this.ratings.update((all) => ({ ...all, [code]: value ?? 0 }));
  }

  protected listWords(code: string, words: HeardWord[]): void {
    this.words.update((all) => ({ ...all, [code]: { words, free: code in all ? all[code].free : '' } }));
  }

  protected freeWords(code: string, free: string): void {
    this.words.update((all) => ({ ...all, [code]: { words: all[code]?.words ?? [], free } }));
  }

  protected tell(key: keyof AboutListener, value: string): void {
    this.about.update((about) => ({ ...about, [key]: value }));
  }

  protected sendAbout(): void {
    this.ask(this.data.about(this.key(), this.about()));
  }

  protected sendHeadphones(found: Parameters<SittingData['headphones']>[1]): void {
    this.ask(this.data.headphones(this.key(), found));
  }

  protected send(): void {
    const trial = this.trial();
    if (!trial || !this.canSend() || this.refusals.stop()) return;
    this.player?.pause();
    const words = Object.fromEntries(Object.entries(this.words()).filter(([, w]) => w.words.length > 0 || w.free.trim() !== '')); // prettier-ignore
    this.ask(
      this.data.answer(this.key(), {
        trial: trial.ordinal,
        answer: this.answer(trial.kind),
        words,
        seconds: (Date.now() - this.begunAt) / 1000,
      }),
      (state) => this.takesBreak.set(state.breakDue && state.trial !== null),
    );
  }

  private answer(kind: NonNullable<SittingState['trial']>['kind']): SendAnswer['answer'] {
    switch (kind) {
      case 'familiarise':
        return { kind };
      case 'order':
        return { kind, codes: [...this.order().placed] };
      case 'pair':
        return { kind, preferred: this.chosen() ?? null };
      case 'abx':
        return { kind, x: this.chosen() ?? '' };
      case 'names':
        return { kind, names: { ...this.names() } };
      case 'ratings':
        return {
          kind,
          ratings: Object.fromEntries(Object.entries(this.ratings()).map(([code, value]) => [code, value ?? 0])),
        };
    }
  }

  private ask(question: ReturnType<SittingData['state']>, then: (state: SittingState) => void = () => undefined): void {
    this.isBusy.set(true);
    question.subscribe({
      next: (state) => {
        this.isBusy.set(false);
        then(state);
        this.take(state);
      },
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.problem.set(problemOf(error));
      },
    });
  }
}
