import { levelsAsked } from '#contracts/protocol';
import { NgTemplateOutlet } from '@angular/common';
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
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { switchMap } from 'rxjs';
import type { CautionId } from '#core/rules/cautions';
import { gainText, textOf } from '#core/rules/compare-versions';
import { gainAdvice } from '#core/rules/gain-advice';
import { takeToShow, undecidedTakes } from '#core/rules/step-takes';
import type { Recording } from '#contracts/recording';
import { takeSettingsSchema, type DecideTake, type SlotTake, type TakeSettings } from '#contracts/session-plan';
import { Recorder, SIMULATED_BENCH } from '../../audio/recorder';
import { Breadcrumb } from '../../data/breadcrumb';
import { isTyping, ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { Saving } from '../../data/saving';
import { SessionData } from '../../data/sessions';
import { Refusals } from '../../ui/field/refusals';
import { formatNumber } from '../../ui/format';
import { LevelBar } from '../../ui/level-bar';
import { PlacementSketch } from '../../ui/placement-sketch';
import { ProblemBox } from '../../ui/problem-box';
import { TakeCorrectionDialog, type NotedTake } from '../../ui/take-correction-dialog';
import { TakeSettingsForm } from '../../ui/take-settings-form';
import { PURPOSE_NAMES, stepsOf, stepState } from '../sessions/session-progress';
import { UndecidedDialog } from '../sessions/undecided-dialog';
import { withAnswers, type Answer } from './answers';
import { loadBenchChoice, saveBenchChoice, type BenchChoice } from './bench-choice';
import { benchOrder } from './bench-order';
import { placeAfterSlot, placeInSlot, startPlace, stepsOn, type BoothPlace } from './booth-place';
import { CautionDialog } from './caution-dialog';
import { InputDialog } from './input-dialog';
import { LeftRecordings } from './left-recordings';
import { OverruleDialog } from './overrule-dialog';
import { GAIN_IS_MISSING, hindrance } from './ready-to-record';
import { StepRail } from './step-rail';
import { TableGrid } from './table-grid';
import { takeClock } from './take-clock';
import { keeping, keepMove, retaking, type Reasons } from './take-decision';
import { differences, startingSettings } from './take-defaults';
import { TakeMachine, type TakeOrder } from './take-machine';
import { TakeVerdict } from './take-verdict';
import { spokenVerdict } from './verdict-words';

const COUNT_KEY = 'sediment.booth.count-in';
/** More chunks waiting than this, and the server is out of reach. */
const MANY_WAITING = 4;

/** The booth: one step after another, in large type, and each take's verdict as soon as it is over. */
@Component({
  selector: 'sd-booth',
  imports: [
    Button,
    CautionDialog,
    FormsModule,
    InputDialog,
    LevelBar,
    NgTemplateOutlet,
    OverruleDialog,
    PlacementSketch,
    ProblemBox,
    RouterLink,
    StepRail,
    TableGrid,
    TakeCorrectionDialog,
    TakeSettingsForm,
    TakeVerdict,
    UndecidedDialog,
  ],
  templateUrl: './booth.html',
  styleUrl: './booth.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Booth {
  readonly id = input.required<string>();

  private readonly data = inject(SessionData);
  private readonly refusals = inject(Refusals);
  protected readonly recorder = inject(Recorder);
  private readonly loaded = toSignal(toObservable(this.id).pipe(switchMap((id) => this.data.plan(id))), {
    initialValue: LOADING,
  });
  protected readonly loadProblem = computed(() => this.loaded().problem);
  protected readonly plan = computed(() => this.loaded().value);

  private readonly at = signal<BoothPlace | null>(null);
  /** Answers that the plan, which is asked for anew a moment later, does not hold yet. */
  private readonly answers = signal<readonly Answer[]>([]);
  protected readonly slot = computed(() => {
    const slot = this.plan()?.slots.find((s) => s.id === this.at()?.slot);
    return slot ? withAnswers(slot, this.answers()) : null;
  });
  protected readonly steps = computed(() => {
    const [plan, slot] = [this.plan(), this.slot()];
    return plan && slot ? stepsOf(plan, slot) : [];
  });
  protected readonly step = computed(() => this.steps().find((s) => s.id === this.at()?.step) ?? null);
  protected readonly ordinal = computed(() => this.steps().findIndex((s) => s.id === this.at()?.step) + 1);
  protected readonly text = computed(() => {
    const [plan, step] = [this.plan(), this.step()];
    return plan && step ? textOf(step, plan.protocol) : null;
  });
  /** Levels and speeds that takes of the step are made at. */
  protected readonly asks = computed(() => {
    const step = this.step();
    return step ? levelsAsked(step) : [];
  });
  protected readonly gainRule = computed(() => gainText(this.step()?.gain ?? null));
  protected readonly window = computed(() => {
    const gain = this.step()?.gain;
    return gain?.rule === 'peaks' ? gain : null;
  });
  protected readonly take = computed(() => {
    const [slot, step] = [this.slot(), this.step()];
    return slot && step ? takeToShow(slot.takes, step.id, this.picked()) : null;
  });
  /** Every take of the step, oldest first: each can be looked at, played and chosen. */
  protected readonly attempts = computed(() => this.slot()?.takes.filter((t) => t.step === this.step()?.id) ?? []);
  /** Take that was picked from that list. */
  protected readonly picked = signal<string | null>(null);

  /** What the next take is noted with; takes that are made keep their own. */
  protected readonly settings = signal<TakeSettings>(takeSettingsSchema.parse({}));
  protected readonly note = signal('');
  /** Says that something has to be noted before a take is worth making. */
  protected readonly missing = signal('');
  protected readonly correcting = signal<SlotTake | null>(null);
  protected readonly noted = computed<NotedTake | null>(() => {
    const take = this.correcting();
    return take && { name: `take ${take.attempt}`, settings: take.settings, note: take.note };
  });
  protected readonly differences = computed(() => {
    const [slot, step] = [this.slot(), this.step()];
    return slot && step ? differences(slot, step, this.settings()) : null;
  });

  protected readonly machine = new TakeMachine(this.recorder, this.data, (slot, take) => this.judged(slot, take));
  protected readonly phase = this.machine.phase;
  protected readonly left = new LeftRecordings(this.data, () => this.machine.current());
  /** What was left of this session; the page Sessions has that of the others. */
  protected readonly leftHere = computed(() => {
    const slots = new Set(this.plan()?.slots.map((s) => s.id));
    return this.left.all().filter((r) => r.slot !== null && slots.has(r.slot) && r.step !== null);
  });
  protected readonly deciding = new Saving();
  /** Cautions that were understood, recordings that were thrown away. */
  protected readonly noting = new Saving();
  protected readonly finishing = new Saving();
  protected readonly correction = new Saving();
  protected readonly problems = computed(() =>
    [this.machine, this.deciding, this.noting, this.finishing].map((s) => s.problem()).filter((p) => p !== null),
  );

  protected readonly countsIn = signal(localStorage.getItem(COUNT_KEY) !== 'off');
  protected readonly clock = computed(() => {
    const rateHz = this.recorder.listening()?.sampleRateHz;
    const seconds = rateHz === undefined ? 0 : (this.recorder.news()?.frames ?? 0) / rateHz;
    return takeClock(seconds, this.step()?.lengthS ?? null);
  });
  protected readonly isWaiting = computed(() => (this.recorder.news()?.waiting ?? 0) > MANY_WAITING);
  protected readonly advice = computed(() => {
    const window = this.window();
    if (!window) return null;
    const live = this.phase() === 'recording' ? this.recorder.news()?.levels : undefined;
    const peak = live ? live.peakDbfs : this.take()?.peakDbfs;
    const isClipped = live ? live.clippedRuns > 0 : (this.take()?.findings.some((f) => f.check === 'clipped') ?? false);
    return peak === undefined || peak === null ? null : gainAdvice(peak, window, isClipped);
  });
  /** The verdict says it already. */
  protected readonly isSaid = computed(
    () =>
      this.phase() === 'idle' &&
      (this.take()?.findings.some((f) => f.check === 'level' || f.check === 'clipped') ?? false),
  );
  protected readonly bench = signal(loadBenchChoice(localStorage));

  protected readonly overruling = signal<SlotTake | null>(null);
  private readonly seen = signal<ReadonlySet<CautionId>>(new Set());
  protected readonly caution = computed(() => {
    const [plan, step] = [this.plan(), this.step()];
    if (!plan || !step || this.phase() !== 'idle') return null;
    return step.cautions.find((c) => !plan.cautionsSeen.includes(c) && !this.seen().has(c)) ?? null;
  });
  protected readonly isSettingUp = signal(true);
  /** Asked before takes that nobody has decided on stay beside the run. */
  protected readonly undecided = signal<readonly SlotTake[]>([]);
  protected readonly said = signal('');
  protected readonly isSlotDone = computed(() => {
    const slot = this.slot();
    return slot !== null && this.steps().every((s) => stepState(slot, s) === 'kept');
  });

  protected readonly purposes = PURPOSE_NAMES;
  protected readonly number = formatNumber;

  constructor() {
    inject(Breadcrumb).crumbs.set([
      { label: 'Sessions', link: '/sessions' },
      { label: 'Booth', link: null },
    ]);
    inject(ScreenKeys).hints.set([
      { keys: 'Space', does: 'Start or stop the take' },
      { keys: 'Enter', does: 'Keep it and go on' },
      { keys: 'R', does: 'Retake' },
      { keys: '↑ ↓', does: 'Step back, step on' },
      { keys: 'N', does: 'Write a note' },
      { keys: 'G', does: 'Take the advised gain for the next take' },
    ]);
    effect(() => {
      const plan = this.plan();
      if (plan && untracked(this.at) === null) this.at.set(startPlace(plan));
    });
    // Each step begins with its own settings.
    effect(() => {
      this.at();
      untracked(() => this.beginStep());
    });
    // A take that could not be handed over is still on the server.
    effect(() => {
      if (this.machine.problem()) void this.left.look();
    });
    inject(DestroyRef).onDestroy(() => {
      this.machine.leave();
      this.left.leave();
      void this.recorder.close();
    });
    // What an earlier page has left behind is sent first; then it is whole.
    void this.recorder.resume().then(() => this.left.look());
  }

  private beginStep(): void {
    const [slot, step] = [this.slot(), this.step()];
    if (!slot || !step) return;
    this.picked.set(null);
    this.settings.set(startingSettings(slot, step));
    this.note.set('');
    this.missing.set('');
    this.machine.problem.set(null);
    this.deciding.problem.set(null);
  }

  /** A step's title, for those who do not know its id. */
  protected titleOf(step: string | null): string {
    return this.plan()?.protocol.steps.find((s) => s.id === step)?.title ?? step ?? '';
  }

  protected changeSettings(part: Partial<TakeSettings>): void {
    this.settings.update((s) => ({ ...s, ...part }));
    this.missing.set('');
  }

  protected setCountsIn(isOn: boolean): void {
    this.countsIn.set(isOn);
    localStorage.setItem(COUNT_KEY, isOn ? 'on' : 'off');
  }

  protected setBench(choice: BenchChoice): void {
    this.bench.set(choice);
    saveBenchChoice(localStorage, choice);
  }

  protected goTo(place: BoothPlace | null): void {
    if (place && this.phase() === 'idle') this.at.set(place);
  }

  protected goToSlot(slot: string): void {
    const plan = this.plan();
    if (plan) this.goTo(placeInSlot(plan, slot));
  }

  protected move(by: number): void {
    const [plan, at] = [this.plan(), this.at()];
    if (plan && at) this.goTo(stepsOn(plan, at, by));
  }

  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    const isAsked = this.caution() ?? this.overruling() ?? this.correcting();
    if (isAsked !== null || this.isSettingUp() || this.undecided().length > 0) return;
    const acts: Readonly<Record<string, () => void>> = {
      ' ': () => this.toggle(),
      enter: () => this.keep(),
      r: () => this.retake(),
      arrowup: () => this.move(-1),
      arrowdown: () => this.move(1),
      n: () => document.getElementById('note')?.focus(),
      g: () => this.turnGain(),
    };
    // A focused control keeps its own keys.
    const isOnControl = (event.target as HTMLElement | null)?.closest('button, a, [role="combobox"]') !== null;
    if (isOnControl && (event.key === 'Enter' || event.key === ' ')) return;
    const act = acts[event.key.toLowerCase()] as (() => void) | undefined;
    if (!act) return;
    event.preventDefault();
    act();
  }

  protected toggle(): void {
    if (this.phase() === 'idle') this.record();
    else void this.machine.end();
  }

  private record(): void {
    const [slot, step, listening] = [this.slot(), this.step(), this.recorder.listening()];
    if (!slot || !step) return;
    const what = hindrance(slot, step, listening !== null, () => this.refusals.stop(), this.settings());
    if (what === 'no-input') this.isSettingUp.set(true);
    if (what === 'no-gain') {
      this.missing.set(GAIN_IS_MISSING);
      document.getElementById('gain')?.focus();
    }
    if (what !== null) return;
    this.said.set('');
    const isBench = listening?.device.id === SIMULATED_BENCH.id;
    const bench = isBench ? benchOrder(this.id(), slot, step, this.bench(), this.settings()) : null;
    const noted: TakeOrder['noted'] = () => ({ settings: this.settings(), note: this.note() });
    this.machine.begin({ slot: slot.id, step: step.id, bench, noted }, this.countsIn());
  }

  private judged(slot: string, take: SlotTake): void {
    this.picked.set(null);
    this.note.set('');
    this.answer(slot, take);
    this.said.set(spokenVerdict(take));
  }

  private answer(slot: string, take: SlotTake): void {
    this.answers.update((all) => [...all.filter((a) => a.take.id !== take.id), { slot, take }]);
  }

  protected keep(): void {
    const take = this.take();
    if (!take || this.phase() !== 'idle') return;
    const move = keepMove(take);
    if (move === 'go-on') this.move(1);
    else if (move === 'ask-reasons') this.overruling.set(take);
    else this.decide(take, keeping(take, {}, this.note()));
  }

  protected overrule(reasons: Reasons): void {
    const take = this.overruling();
    this.overruling.set(null);
    if (take) this.decide(take, keeping(take, reasons, this.note()));
  }

  protected retake(): void {
    const take = this.take();
    if (take && this.phase() === 'idle' && this.slot()?.runId === null) this.decide(take, retaking(take));
  }

  private decide(take: SlotTake, decision: DecideTake): void {
    const slot = this.slot();
    if (!slot) return;
    this.deciding.run(this.data.decide(take.id, decision), (decided) => {
      this.answer(slot.id, decided);
      this.said.set('');
      if (this.picked() === decided.id) this.picked.set(null);
      if (decision.state !== 'kept') return;
      this.note.set('');
      // After the last step the unit is to be finished by hand.
      this.move(1);
    });
  }

  protected saveCorrection({ settings, note }: NotedTake): void {
    const [slot, take] = [this.slot(), this.correcting()];
    if (!slot || !take) return;
    this.correction.run(this.data.correctTake(take.id, { settings, note }), (corrected) => {
      this.answer(slot.id, corrected);
      this.correcting.set(null);
    });
  }

  /** Advice is for the next take; the one it comes from stays as it was noted. */
  protected turnGain(): void {
    const advice = this.advice();
    const gain = this.settings().gainDb;
    if (advice && gain !== null && advice.turnDb !== 0) this.changeSettings({ gainDb: gain + advice.turnDb });
  }

  protected finishUnit(withUndecided = false): void {
    const slot = this.slot();
    if (!slot) return;
    const undecided = undecidedTakes(slot.takes);
    this.undecided.set(withUndecided ? [] : undecided);
    if (undecided.length > 0 && !withUndecided) return;
    this.finishing.run(this.data.finishSlot(slot.id, { withUndecided }), () => {
      const plan = this.plan();
      if (plan) this.goTo(placeAfterSlot(plan, slot.id));
    });
  }

  protected goToUndecided(): void {
    const slot = this.slot();
    const first = slot && undecidedTakes(slot.takes).at(0);
    if (slot && first) this.goTo({ slot: slot.id, step: first.step });
  }

  protected acknowledge(caution: CautionId): void {
    this.seen.update((s) => new Set([...s, caution]));
    this.noting.run(this.data.seeCaution(this.id(), caution));
  }

  /** Takes what a crash has left as a take of its step, noted as the step begins. */
  protected useLeft(recording: Recording): void {
    const own = this.plan()?.slots.find((s) => s.id === recording.slot);
    const step = this.plan()?.protocol.steps.find((s) => s.id === recording.step);
    if (!own || !step || this.phase() !== 'idle') return;
    const place = { slot: own.id, step: step.id };
    const noted = { settings: startingSettings(own, step), note: '' };
    this.goTo(place);
    void this.machine
      .takeOver({ ...place, bench: null, noted: () => noted }, recording.id)
      .then(() => this.left.look());
  }

  protected dropLeft(recording: Recording): void {
    this.noting.run(this.data.discardRecording(recording.id), () => this.left.forget(recording));
  }
}
