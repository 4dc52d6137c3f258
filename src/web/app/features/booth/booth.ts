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
import { Dialog } from 'primeng/dialog';
import { firstValueFrom, switchMap } from 'rxjs';
import { CAUTIONS, type CautionId } from '#core/rules/cautions';
import { gainText, playKindOf, textOf } from '#core/rules/compare-versions';
import { gainAdvice } from '#core/rules/gain-advice';
import { takeToShow, undecidedTakes } from '#core/rules/step-takes';
import { TAKE_CHECKS } from '#core/rules/take-checks/take-check';
import type { BenchParts } from '#contracts/bench';
import type { Recording } from '#contracts/recording';
import type { Problem } from '#contracts/problem';
import { takeSettingsSchema, type Slot, type SlotTake, type TakeSettings } from '#contracts/session-plan';
import { roleOf, type Step } from '#contracts/protocol';
import { TickField } from '../../ui/field/tick-field';
import { ChoiceField } from '../../ui/field/choice-field';
import { TextField } from '../../ui/field/text-field';
import { Recorder, SIMULATED_BENCH, type InputDevice } from '../../audio/recorder';
import { problemOf } from '../../data/api';
import { NgTemplateOutlet } from '@angular/common';
import { Breadcrumb } from '../../data/breadcrumb';
import { isTyping, ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { SessionData } from '../../data/sessions';
import { ClipPlayer } from '../../ui/clip-player';
import { formatNumber, formatTime } from '../../ui/format';
import { LevelBar } from '../../ui/level-bar';
import { PlacementSketch } from '../../ui/placement-sketch';
import { ProblemBox } from '../../ui/problem-box';
import { PURPOSE_NAMES, stepsOf, stepState, whereToGoOn } from '../sessions/session-progress';
import { loadBenchChoice, saveBenchChoice, type BenchChoice } from './bench-choice';
import { BenchPanel } from './bench-panel';
import { withAnswers, type Answer } from './answers';
import { UndecidedDialog } from '../sessions/undecided-dialog';
import { Refusals } from '../../ui/field/refusals';
import { TakeSettingsForm } from '../../ui/take-settings-form';
import { differences, settingsLine, startingSettings } from './take-defaults';
import { TableGrid } from './table-grid';

type Phase = 'idle' | 'counting' | 'recording' | 'saving';

const STATE_NAMES = { open: 'undecided', kept: 'kept', retaken: 'put aside' } as const;
const VERDICT_WORDS = { keep: 'Keep', look: 'Have a look', redo: 'Redo' } as const;
const COUNT_FROM = 3;
const DEVICE_KEY = 'sediment.booth.device';
const COUNT_KEY = 'sediment.booth.count-in';
/** More chunks waiting than this, and the server is out of reach. */
const MANY_WAITING = 4;
/** Between two looks for recordings that a closed page has left. */
const LOOK_AGAIN_MS = 2_000;

/** The booth: one step after another, in large type, and each take's verdict as soon as it is over. */
@Component({
  selector: 'sd-booth',
  imports: [
    BenchPanel,
    Button,
    ChoiceField,
    ClipPlayer,
    Dialog,
    FormsModule,
    LevelBar,
    NgTemplateOutlet,
    PlacementSketch,
    ProblemBox,
    RouterLink,
    TableGrid,
    TakeSettingsForm,
    TextField,
    TickField,
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
  protected readonly problem = signal<Problem | null>(null);

  private readonly at = signal<{ slot: string; step: string } | null>(null);
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
  protected readonly playKind = computed(() => (this.step() ? playKindOf(this.step() as Step) : ''));
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
  protected readonly correcting = signal<{ take: SlotTake; settings: TakeSettings; note: string } | null>(null);
  protected readonly differences = computed(() => {
    const [slot, step] = [this.slot(), this.step()];
    return slot && step ? differences(slot, step, this.settings()) : null;
  });

  protected readonly phase = signal<Phase>('idle');
  protected readonly count = signal(0);
  protected readonly countIn = signal(localStorage.getItem(COUNT_KEY) !== 'off');
  protected readonly seconds = computed(() => {
    const listening = this.recorder.listening();
    return listening ? (this.recorder.news()?.frames ?? 0) / listening.sampleRateHz : 0;
  });
  protected readonly clock = computed(() => {
    const seconds = this.seconds();
    const most = this.step()?.lengthS?.most ?? null;
    const least = this.step()?.lengthS?.least ?? null;
    const left = least !== null && seconds < least ? ` · ${formatNumber(Math.ceil(least - seconds), 0)} s to go` : '';
    return `${formatTime(seconds)}${left}${most !== null && seconds > most ? ' · long enough' : ''}`;
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

  protected readonly devices = signal<readonly InputDevice[]>([SIMULATED_BENCH]);
  protected readonly deviceOptions = computed(() => this.devices().map((d) => ({ label: d.label, value: d.id })));
  protected readonly channelOptions = [
    { label: 'one', value: 1 },
    { label: 'two', value: 2 },
  ];
  protected readonly deviceId = signal(localStorage.getItem(DEVICE_KEY) ?? '');
  protected readonly channels = signal(1);
  protected readonly deviceProblem = signal('');
  protected readonly isBench = computed(() => this.recorder.listening()?.device.id === SIMULATED_BENCH.id);
  protected readonly bench = signal<BenchChoice>(loadBenchChoice(localStorage));
  protected readonly parts = signal<BenchParts | null>(null);
  protected readonly left = signal<readonly Recording[]>([]);

  protected readonly overruling = signal<SlotTake | null>(null);
  protected readonly reasons = signal<Readonly<Partial<Record<string, string>>>>({});
  protected readonly caution = computed(() => {
    const [plan, step] = [this.plan(), this.step()];
    if (!plan || !step || this.phase() !== 'idle') return null;
    const id = step.cautions.find((c) => !plan.cautionsSeen.includes(c) && !this.seen().has(c));
    return id ? { id, ...CAUTIONS[id] } : null;
  });
  private readonly seen = signal<ReadonlySet<CautionId>>(new Set());
  protected readonly isSettingUp = signal(true);
  protected readonly isFinishing = signal(false);
  /** Asked before takes that nobody has decided on stay beside the run. */
  protected readonly undecided = signal<readonly SlotTake[]>([]);
  protected readonly said = signal('');

  protected readonly checkNames = TAKE_CHECKS;
  protected readonly verdictWords = VERDICT_WORDS;
  protected readonly stateNames = STATE_NAMES;
  protected readonly purposes = PURPOSE_NAMES;
  protected readonly number = formatNumber;
  protected readonly settingsLine = settingsLine;
  protected readonly isSlotDone = computed(() => {
    const slot = this.slot();
    return slot !== null && this.steps().every((s) => stepState(slot, s) === 'kept');
  });

  private recording: string | null = null;
  private counting: ReturnType<typeof setInterval> | null = null;
  private looking: ReturnType<typeof setTimeout> | null = null;

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
    // Work goes on where it stopped.
    effect(() => {
      const plan = this.plan();
      if (!plan || untracked(this.at) !== null) return;
      const place = whereToGoOn(plan) ?? { slot: plan.slots[0], step: plan.protocol.steps[0] };
      this.at.set({ slot: place.slot.id, step: place.step.id });
    });
    // Each step begins with its own settings.
    effect(() => {
      const at = this.at();
      untracked(() => {
        const [slot, step] = [this.slot(), this.step()];
        if (!at || !slot || !step) return;
        this.picked.set(null);
        this.settings.set(startingSettings(slot, step));
        this.note.set('');
        this.missing.set('');
        this.problem.set(null);
      });
    });
    effect(() => saveBenchChoice(localStorage, this.bench()));
    inject(DestroyRef).onDestroy(() => {
      this.stopCounting();
      if (this.looking !== null) clearTimeout(this.looking);
      void this.recorder.close();
    });
    void this.prepare();
  }

  /** Lists inputs, and what an earlier page has left behind. */
  private async prepare(): Promise<void> {
    await this.listDevices();
    await this.recorder.resume();
    await this.lookForLeft();
  }

  /**
   * Lists recordings that nobody goes on with. One whose page was closed a moment ago still counts as running, so it is
   * looked for again until it does not.
   */
  private async lookForLeft(): Promise<void> {
    const all = await firstValueFrom(this.data.recordings()).catch((): Recording[] => []);
    const others = all.filter((r) => r.id !== this.recording);
    this.left.set(others.filter((r) => !r.isActive));
    if (this.looking !== null) clearTimeout(this.looking);
    this.looking = others.some((r) => r.isActive) ? setTimeout(() => void this.lookForLeft(), LOOK_AGAIN_MS) : null;
  }

  /** A step's title, for those who do not know its id. */
  protected titleOf(step: string | null): string {
    return this.plan()?.protocol.steps.find((s) => s.id === step)?.title ?? step ?? '';
  }

  private async listDevices(): Promise<void> {
    this.devices.set(await this.recorder.devices());
    const known = this.devices().some((d) => d.id === this.deviceId());
    if (!known) this.deviceId.set(this.devices()[0].id);
  }

  protected async openDevice(): Promise<void> {
    const device = this.devices().find((d) => d.id === this.deviceId()) ?? this.devices()[0];
    this.deviceProblem.set('');
    try {
      const isBench = device.id === SIMULATED_BENCH.id;
      const wanted = this.plan()?.protocol.sampleRateHz ?? this.plan()?.rig?.sampleRateHz ?? null;
      if (isBench) this.parts.set(await firstValueFrom(this.data.benchParts()));
      await this.recorder.open(device, this.channels(), isBench ? 48_000 : wanted);
      localStorage.setItem(DEVICE_KEY, device.id);
      this.isSettingUp.set(false);
      await this.listDevices();
    } catch (error) {
      const what = error instanceof Error ? error.message : String(error);
      this.deviceProblem.set(`This input cannot be opened: ${what}. Allow it in the browser, or choose another one.`);
    }
  }

  protected changeSettings(part: Partial<TakeSettings>): void {
    this.settings.update((s) => ({ ...s, ...part }));
    this.missing.set('');
  }

  protected setCountIn(isOn: boolean): void {
    this.countIn.set(isOn);
    localStorage.setItem(COUNT_KEY, isOn ? 'on' : 'off');
  }

  protected state(slot: Slot, step: Step): string {
    return stepState(slot, step);
  }

  protected goTo(slot: string, step: string): void {
    if (this.phase() === 'idle') this.at.set({ slot, step });
  }

  protected goToSlot(slotId: string): void {
    const [plan, slot] = [this.plan(), this.plan()?.slots.find((s) => s.id === slotId)];
    if (!plan || !slot || this.phase() !== 'idle') return;
    const steps = stepsOf(plan, slot);
    const step = steps.find((s) => stepState(slot, s) !== 'kept') ?? steps[0];
    this.at.set({ slot: slot.id, step: step.id });
  }

  protected move(by: number): void {
    const steps = this.steps();
    const next = steps.at(this.ordinal() - 1 + by);
    const at = this.at();
    if (next && at && this.ordinal() - 1 + by >= 0) this.goTo(at.slot, next.id);
  }

  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (this.caution() || this.overruling() || this.isSettingUp() || this.correcting() || this.undecided().length > 0)
      return;
    const isOnControl = (event.target as HTMLElement | null)?.closest('button, a, [role="combobox"]') !== null;
    const acts: Readonly<Record<string, () => void>> = {
      ' ': () => void this.toggle(),
      Enter: () => this.keep(),
      r: () => this.retake(),
      R: () => this.retake(),
      ArrowUp: () => this.move(-1),
      ArrowDown: () => this.move(1),
      n: () => document.getElementById('note')?.focus(),
      N: () => document.getElementById('note')?.focus(),
      g: () => this.turnGain(),
      G: () => this.turnGain(),
    };
    // A focused control keeps its own keys.
    if (isOnControl && (event.key === 'Enter' || event.key === ' ')) return;
    const act = acts[event.key] as (() => void) | undefined;
    if (!act) return;
    event.preventDefault();
    act();
  }

  protected async toggle(): Promise<void> {
    if (this.phase() === 'recording') await this.stop();
    else if (this.phase() === 'counting') this.stopCounting();
    else if (this.phase() === 'idle' && !this.step()?.table && this.slot()?.runId === null) this.startCounting();
  }

  private startCounting(): void {
    if (!this.recorder.listening()) {
      this.isSettingUp.set(true);
      return;
    }
    if (this.refusals.stop()) return;
    if (this.settings().gainDb === null) {
      this.missing.set(
        'Note the gain first: without it no figure of this take can be compared. 0 where nothing can be turned.',
      );
      document.getElementById('gain')?.focus();
      return;
    }
    if (!this.countIn()) {
      void this.start();
      return;
    }
    this.phase.set('counting');
    this.count.set(COUNT_FROM);
    this.counting = setInterval(() => {
      this.count.update((n) => n - 1);
      if (this.count() > 0) return;
      this.stopCounting();
      void this.start();
    }, 1000);
  }

  private stopCounting(): void {
    if (this.counting !== null) clearInterval(this.counting);
    this.counting = null;
    if (this.phase() === 'counting') this.phase.set('idle');
  }

  private async start(): Promise<void> {
    const [slot, step, listening] = [this.slot(), this.step(), this.recorder.listening()];
    if (!slot || !step || !listening) return;
    this.problem.set(null);
    this.said.set('');
    this.phase.set('saving');
    try {
      const play = this.isBench() ? await this.recorder.prepareBench(this.benchTake(slot, step)) : null;
      const { device, settings } = listening;
      const recording = await firstValueFrom(
        this.data.startRecording({
          slot: slot.id,
          step: step.id,
          sampleRateHz: listening.sampleRateHz,
          channels: listening.channels,
          device: device.label,
          settings,
        }),
      );
      this.recording = recording.id;
      await this.recorder.begin(recording.id);
      this.phase.set('recording');
      if (play) void play().then(() => (this.phase() === 'recording' ? this.stop() : undefined));
    } catch (error) {
      this.phase.set('idle');
      this.problem.set(problemOf(error));
    }
  }

  private async stop(): Promise<void> {
    const [slot, step, recording] = [this.slot(), this.step(), this.recording];
    if (!slot || !step || recording === null) return;
    this.phase.set('saving');
    try {
      const { frames, refused } = await this.recorder.end();
      if (refused !== null) throw new Error(refused);
      const { clip } = await firstValueFrom(this.data.finishRecording(recording, frames));
      await this.check(slot.id, step.id, clip.sha256);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
    this.recording = null;
    this.phase.set('idle');
  }

  private async check(slot: string, step: string, clip: string): Promise<void> {
    const take = await firstValueFrom(
      this.data.addTake(slot, { step, clip, settings: this.settings(), note: this.note() }),
    );
    this.picked.set(null);
    this.note.set('');
    this.answer(slot, take);
    this.said.set(`${VERDICT_WORDS[take.verdict]}. ${take.findings.map((f) => f.what).join(' ')}`);
  }

  private answer(slot: string, take: SlotTake): void {
    this.answers.update((all) => [...all.filter((a) => a.take.id !== take.id), { slot, take }]);
  }

  private benchTake(slot: Slot, step: Step) {
    const { talker, room, microphone, interface: desk, faults } = this.bench();
    const { gainDb, distanceM, angleDeg } = this.settings();
    const attempt = slot.takes.filter((t) => t.step === step.id).length + 1;
    return {
      talker,
      room: ['sweep', 'tone'].includes(playKindOf(step)) && roleOf(step) !== 'room' ? 'crate' : room,
      microphone,
      interface: desk,
      faults: [...faults],
      playKind: playKindOf(step),
      gainDb: gainDb ?? 40,
      distanceM: distanceM ?? step.distanceM,
      angleDeg: angleDeg ?? step.angleDeg,
      seed: [this.id(), slot.ordinal, step.id, attempt].join('/'),
    };
  }

  protected keep(): void {
    const take = this.take();
    if (!take || this.phase() !== 'idle') return;
    if (take.state === 'kept') {
      this.goOn();
      return;
    }
    if (take.findings.some((f) => f.weight === 'redo')) {
      this.reasons.set({});
      this.overruling.set(take);
      return;
    }
    this.decide(take, 'kept', []);
  }

  protected setReason(check: string, reason: string): void {
    this.reasons.update((r) => ({ ...r, [check]: reason }));
  }

  protected readonly canOverrule = computed(() =>
    (this.overruling()?.findings ?? [])
      .filter((f) => f.weight === 'redo')
      .every((f) => (this.reasons()[f.check] ?? '').trim() !== ''),
  );

  protected overrule(): void {
    const take = this.overruling();
    if (!take || !this.canOverrule()) return;
    const overruled = take.findings.flatMap(({ check }) => {
      const reason = (this.reasons()[check] ?? '').trim();
      return reason === '' ? [] : [{ check, reason }];
    });
    this.overruling.set(null);
    this.decide(take, 'kept', overruled);
  }

  protected retake(): void {
    const take = this.take();
    if (!take || this.phase() !== 'idle' || this.slot()?.runId !== null) return;
    this.decide(take, 'retaken', take.overruled);
  }

  private decide(take: SlotTake, state: 'kept' | 'retaken', overruled: SlotTake['overruled']): void {
    const slot = this.slot();
    if (!slot) return;
    // What was typed while a take is looked at is said of it, once it is kept.
    const typed = state === 'kept' ? this.note().trim() : '';
    const note =
      typed === '' || typed === take.note ? take.note : [take.note, typed].filter((n) => n !== '').join('; ');
    this.data.decide(take.id, { state, overruled, note }).subscribe({
      next: (decided) => {
        this.answer(slot.id, decided);
        this.said.set('');
        if (this.picked() === decided.id) this.picked.set(null);
        if (state === 'kept') this.note.set('');
        if (state === 'kept') this.goOn();
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  /** On to the next step; after the last one the unit is to be finished by hand. */
  private goOn(): void {
    const next = this.steps().at(this.ordinal());
    const at = this.at();
    if (next && at) this.at.set({ slot: at.slot, step: next.id });
  }

  protected correct(take: SlotTake): void {
    this.correcting.set({ take, settings: take.settings, note: take.note });
  }

  protected saveCorrection(): void {
    const [slot, correction] = [this.slot(), this.correcting()];
    if (!slot || !correction || this.refusals.stop()) return;
    const { take, settings, note } = correction;
    this.data.correctTake(take.id, { settings, note }).subscribe({
      next: (corrected) => {
        this.answer(slot.id, corrected);
        this.correcting.set(null);
      },
      error: (error: unknown) => {
        this.correcting.set(null);
        this.problem.set(problemOf(error));
      },
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
    if (!slot || this.isFinishing()) return;
    const undecided = undecidedTakes(slot.takes);
    if (undecided.length > 0 && !withUndecided) {
      this.undecided.set(undecided);
      return;
    }
    this.undecided.set([]);
    this.isFinishing.set(true);
    this.data.finishSlot(slot.id, { withUndecided }).subscribe({
      next: () => {
        this.isFinishing.set(false);
        const following = this.plan()?.slots.find((s) => s.ordinal > slot.ordinal && s.runId === null);
        if (following) this.goToSlot(following.id);
      },
      error: (error: unknown) => {
        this.isFinishing.set(false);
        this.problem.set(problemOf(error));
      },
    });
  }

  protected goToUndecided(): void {
    const slot = this.slot();
    const first = slot && undecidedTakes(slot.takes).at(0);
    if (slot && first) this.goTo(slot.id, first.step);
  }

  protected acknowledge(caution: CautionId): void {
    this.seen.update((s) => new Set([...s, caution]));
    this.data
      .seeCaution(this.id(), caution)
      .subscribe({ error: (error: unknown) => this.problem.set(problemOf(error)) });
  }

  /** Takes what a crash has left as a take of its step. */
  protected useLeft(recording: Recording): void {
    this.data.finishRecording(recording.id, null).subscribe({
      next: ({ clip, slot, step }) => {
        this.left.update((all) => all.filter((r) => r !== recording));
        const own = this.plan()?.slots.find((s) => s.id === slot);
        if (!own || step === null) return;
        this.at.set({ slot: own.id, step });
        void this.check(own.id, step, clip.sha256).catch((error: unknown) => this.problem.set(problemOf(error)));
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  protected dropLeft(recording: Recording): void {
    this.data.discardRecording(recording.id).subscribe({
      next: () => this.left.update((all) => all.filter((r) => r !== recording)),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}
