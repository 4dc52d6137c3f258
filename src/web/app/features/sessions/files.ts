import { gainGroup, turnedGain, type GainStep } from '#core/rules/gain-group';
import { asNoted, notedGain, type NotedGain, type TakeGain } from '#core/rules/take-gain';
import { GainField } from '../../ui/field/gain-field';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { ACCEPTED_SOUND } from '#core/audio/sound-files';
import { Button } from 'primeng/button';
import { concatMap, from, lastValueFrom, switchMap, toArray } from 'rxjs';
import { playKindOf } from '#core/rules/compare-versions';
import { facingDoubt } from '#core/rules/facing-doubt';
import type { Clip } from '#contracts/clip';
import { roleOf } from '#contracts/protocol';
import type { Problem } from '#contracts/problem';
import { takeSettingsSchema, type MatchProposal, type SlotTake } from '#contracts/session-plan';
import { ChoiceField } from '../../ui/field/choice-field';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { ScreenKeys } from '../../data/keys';
import { LOADING } from '../../data/loaded';
import { SessionData, type Stretch } from '../../data/sessions';
import { Uploads } from '../../data/uploads';
import { droppedFiles, isAudioName } from '../../ui/dropped-files';
import { formatNumber } from '../../ui/format';
import { ClipPlayer } from '../../ui/clip-player';
import { ProblemBox } from '../../ui/problem-box';
import { CutEditor } from './cut-editor';
import { stepsOf } from './session-progress';
import { SHEETS } from '../../ui/field/number-sheets';
import { Refusals } from '../../ui/field/refusals';
import { neededOfFiles, stepsTwice } from './files-needed';

/** A file that has arrived, and what is to become of it. */
interface Arrived {
  readonly name: string;
  readonly clip: Clip;
  readonly proposal: MatchProposal | null;
  /** As confirmed or changed by hand. */
  readonly step: string | null;
  readonly byHand: boolean;
  readonly gainDb: number | null;
  readonly dial: string;
  readonly taken: SlotTake | null;
}

/** A silent step that says no length is about this long. Common practice, no source. */
const USUAL_SILENCE_S = 5;

const NO_GAIN: NotedGain = { gainDb: null, dial: '' };

/**
 * Gain of a step by that of the passage; where the dial has no decibels, a step that is turned has none that is known.
 *
 * @returns null for a step that is made at a gain of its own
 */
export function gainAtStep(gain: TakeGain | null, step: string | null, steps: readonly GainStep[]): NotedGain | null {
  const passage = gainGroup(steps.at(0)?.id ?? null, steps);
  const { root, byDb } = gainGroup(step, steps);
  if (root !== '' && root !== passage.root) return null;
  const by = byDb - passage.byDb;
  if (gain?.kind === 'dB') return { gainDb: turnedGain(gain.db, by), dial: '' };
  return by === 0 || gain?.kind !== 'dial' ? asNoted(gain, NO_GAIN) : NO_GAIN;
}

const levelled = ({ name, proposal, gainDb }: Arrived) => ({
  name,
  integratedLufs: proposal?.integratedLufs ?? null,
  gainDb,
});

/** A file with what is proposed for it; what a person has set, and what was taken over, stays. */
export function proposed<T extends Pick<Arrived, 'clip' | 'step' | 'byHand' | 'taken'>>(
  file: T,
  proposals: readonly MatchProposal[],
): T {
  const proposal = proposals.find((p) => p.clip.sha256 === file.clip.sha256);
  if (!proposal || file.taken !== null) return file;
  return { ...file, proposal, step: file.byHand ? file.step : proposal.step };
}

/** Files with the steps of two exchanged, neither of them taken over any more. */
export function exchanged<T extends Pick<Arrived, 'step' | 'byHand' | 'taken'>>(files: readonly T[], a: T, b: T): T[] {
  const of = (f: T, step: string | null): T => ({ ...f, step, byHand: true, taken: null });
  return files.map((f) => (f === a ? of(f, b.step) : f === b ? of(f, a.step) : f));
}

const CONTENT_WORDS: Readonly<Record<string, string>> = {
  silence: 'silence',
  tone: 'a tone',
  sweep: 'a sweep',
  passage: 'a long reading',
  line: 'a short line',
  sound: 'some sound',
};

/** Files recorded elsewhere: each is matched to a step, with the reasons, and taken over once somebody has confirmed it. */
@Component({
  selector: 'sd-files',
  imports: [Button, ChoiceField, ClipPlayer, CutEditor, GainField, ProblemBox, RouterLink],
  templateUrl: './files.html',
  styleUrl: './files.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Files {
  protected readonly accepted = ACCEPTED_SOUND;
  protected readonly sheets = SHEETS;
  readonly id = input.required<string>();
  readonly slotId = input.required<string>();

  private readonly data = inject(SessionData);
  private readonly refusals = inject(Refusals);
  private readonly uploads = inject(Uploads);
  private readonly router = inject(Router);
  private readonly loaded = toSignal(toObservable(this.id).pipe(switchMap((id) => this.data.plan(id))), {
    initialValue: LOADING,
  });
  protected readonly plan = computed(() => this.loaded().value);
  protected readonly slot = computed(() => this.plan()?.slots.find((s) => s.id === this.slotId()) ?? null);
  protected readonly steps = computed(() => {
    const [plan, slot] = [this.plan(), this.slot()];
    return plan && slot ? stepsOf(plan, slot).filter((s) => !s.table) : [];
  });
  protected readonly stepOptions = computed(() => [
    { label: 'not used', value: null },
    ...this.steps().map((s) => ({ label: s.title, value: s.id })),
  ]);
  protected readonly files = signal<readonly Arrived[]>([]);
  protected readonly problems = signal<readonly { problem: Problem; file: File | null }[]>([]);
  protected readonly leftOut = signal<readonly string[]>([]);
  protected readonly cutting = signal<{ file: Arrived; stretches: readonly Stretch[] } | null>(null);
  protected readonly busy = signal('');
  protected readonly isOver = signal(false);
  protected readonly gain = signal<TakeGain | null>(null);
  protected readonly notedGain = notedGain;
  protected readonly asNoted = asNoted;
  protected readonly number = formatNumber;
  protected readonly contentWords = CONTENT_WORDS;
  protected readonly missing = computed(() => {
    const used = new Set(this.files().map((f) => f.step));
    return this.steps().filter((s) => !used.has(s.id));
  });
  protected readonly twice = computed(() => stepsTwice(this.files()));
  /** Front and back that look exchanged. */
  protected readonly facing = computed(() => {
    const of = (role: string): Arrived | null => {
      const step = this.steps().find((s) => roleOf(s) === role);
      return this.files().findLast((f) => step !== undefined && f.step === step.id) ?? null;
    };
    const [front, back] = [of('speech'), of('rear')];
    const doubt = facingDoubt(front && levelled(front), back && levelled(back));
    return front && back && doubt !== null ? { front, back, doubt } : null;
  });
  protected readonly needed = computed(() =>
    neededOfFiles(this.files(), (id) => this.steps().find((s) => s.id === id)?.title ?? id),
  );
  protected readonly isReady = computed(() => this.needed().length === 0);
  protected readonly isDone = computed(
    () => this.files().some((f) => f.taken !== null) && !this.files().some((f) => f.step !== null && f.taken === null),
  );

  constructor() {
    inject(Breadcrumb).crumbs.set([
      { label: 'Sessions', link: '/sessions' },
      { label: 'Files', link: null },
    ]);
    inject(ScreenKeys).hints.set([{ keys: 'O', does: 'Choose files' }]);
  }

  protected async drop(event: DragEvent): Promise<void> {
    event.preventDefault();
    this.isOver.set(false);
    if (event.dataTransfer) await this.receive(await droppedFiles(event.dataTransfer));
  }

  protected async choose(field: HTMLInputElement): Promise<void> {
    const files = [...(field.files ?? [])];
    field.value = '';
    await this.receive(files);
  }

  private async receive(files: readonly File[]): Promise<void> {
    this.problems.set([]);
    const sound = files.filter((f) => isAudioName(f.name));
    const others = files.filter((f) => !isAudioName(f.name) && !f.name.startsWith('.'));
    this.leftOut.set(others.map((f) => f.name));
    for (const [i, file] of sound.entries()) {
      this.busy.set(`Sending ${i + 1} of ${sound.length}: ${file.name}`);
      await this.send(file, false);
    }
    await this.match();
  }

  private async send(file: File, keepPart: boolean): Promise<void> {
    try {
      const state = await lastValueFrom(this.uploads.send(file, keepPart));
      if (state.kind === 'stored') this.add(file.name, state.clip);
    } catch (error) {
      this.problems.update((all) => [...all, { problem: problemOf(error), file }]);
    }
  }

  /** Of a file that was cut off on its way: what is there of it is taken. */
  protected async keepPart(refused: { problem: Problem; file: File | null }): Promise<void> {
    const { file } = refused;
    if (!file) return;
    this.problems.update((all) => all.filter((p) => p !== refused));
    await this.send(file, true);
    await this.match();
  }

  /** Leaves the message behind; the file is not taken. */
  protected forget(refused: { problem: Problem; file: File | null }): void {
    this.problems.update((all) => all.filter((p) => p !== refused));
  }

  private add(name: string, clip: Clip): void {
    if (this.files().some((f) => f.clip.sha256 === clip.sha256)) return;
    const arrived: Arrived = {
      name,
      clip,
      proposal: null,
      step: null,
      byHand: false,
      ...asNoted(this.gain(), NO_GAIN),
      taken: null,
    };
    this.files.update((all) => [...all, arrived]);
  }

  /** Asks which is which; what a person has set stays. */
  protected async match(): Promise<void> {
    // What was taken over keeps its step; another file for it is another attempt.
    const open = this.files().filter((f) => f.taken === null);
    if (open.length === 0) {
      this.busy.set('');
      return;
    }
    this.busy.set('Listening to the files …');
    try {
      const proposals = await lastValueFrom(
        this.data.match(
          this.slotId(),
          open.map((f) => ({ name: f.name, clip: f.clip.sha256, gainDb: f.gainDb })),
        ),
      );
      this.files.update((all) => all.map((f) => proposed(f, proposals)));
    } catch (error) {
      this.problems.update((all) => [...all, { problem: problemOf(error), file: null }]);
    }
    this.busy.set('');
  }

  /** Looks for the takes of a long recording, and shows the marks. */
  protected async findCuts(file: Arrived, method: 'silences' | 'tones' | 'announcements'): Promise<void> {
    this.busy.set(`Looking for the takes of ${file.name} …`);
    try {
      const silent = this.steps().find((s) => playKindOf(s) === 'silence');
      const silenceS = method === 'silences' && silent ? (silent.lengthS?.least ?? USUAL_SILENCE_S) : null;
      const order = { clip: file.clip.sha256, method, silenceS };
      this.cutting.set({ file, stretches: await lastValueFrom(this.data.findCuts(order)) });
    } catch (error) {
      this.problems.set([{ problem: problemOf(error), file: null }]);
    }
    this.busy.set('');
  }

  protected async cut(file: Arrived, stretches: Stretch[]): Promise<void> {
    this.busy.set(`Cutting ${file.name} …`);
    try {
      const pieces = await lastValueFrom(this.data.cut(file.clip.sha256, stretches));
      this.cutting.set(null);
      this.files.update((all) => all.filter((f) => f !== file));
      for (const piece of pieces) this.add(piece.name, piece.clip);
      await this.match();
    } catch (error) {
      this.problems.set([{ problem: problemOf(error), file: null }]);
      this.busy.set('');
    }
  }

  /** Exchanges the steps of two files; both are confirmed anew. */
  protected swap(front: Arrived, back: Arrived): void {
    this.files.update((all) => exchanged(all, front, back));
  }

  protected change(file: Arrived, part: Partial<Arrived>): void {
    this.files.update((all) => all.map((f) => (f === file ? { ...f, ...part } : f)));
  }

  /** One gain for all: the usual case is one knob that nobody touched. */
  protected gainForAll(gain: TakeGain | null): void {
    this.gain.set(gain);
    const steps = this.steps();
    this.files.update((all) => all.map((f) => ({ ...f, ...gainAtStep(gain, f.step, steps) }))); // prettier-ignore
  }

  protected remove(file: Arrived): void {
    this.files.update((all) => all.filter((f) => f !== file));
  }

  /** Takes the files over as takes of their steps, in the order of the protocol, each checked as if recorded here. */
  protected async takeOver(): Promise<void> {
    if (this.refusals.stop()) return;
    const order = this.steps().map((s) => s.id);
    const used = this.files()
      .filter((f) => f.step !== null && f.taken === null)
      .sort((a, b) => order.indexOf(a.step ?? '') - order.indexOf(b.step ?? ''));
    this.busy.set('Checking the takes …');
    try {
      const taken = await lastValueFrom(
        from(used).pipe(
          concatMap((f) =>
            this.data.addTake(this.slotId(), {
              step: f.step ?? '',
              clip: f.clip.sha256,
              settings: takeSettingsSchema.parse({ gainDb: f.gainDb, dial: f.dial }),
              note: `recorded elsewhere as ${f.name}`,
            }),
          ),
          concatMap((take) =>
            take.verdict === 'keep' ? this.data.decide(take.id, { state: 'kept', overruled: [] }) : from([take]),
          ),
          toArray(),
        ),
      );
      this.files.update((all) =>
        all.map((f) => ({ ...f, taken: taken.find((t) => t.clip.sha256 === f.clip.sha256) ?? f.taken })),
      );
    } catch (error) {
      this.problems.set([{ problem: problemOf(error), file: null }]);
    }
    this.busy.set('');
  }

  protected leave(): void {
    void this.router.navigate(['/sessions', this.id()]);
  }
}
