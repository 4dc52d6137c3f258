import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { Button } from 'primeng/button';
import { switchMap, type Observable } from 'rxjs';
import type { Problem } from '#contracts/problem';
import type { NewUnit } from '#contracts/specimen';
import {
  CALIBRATION_KINDS,
  rigDocumentSchema,
  type Calibration,
  type NewCalibration,
  type Rig,
  type RigDocument,
} from '#contracts/rig';
import { unitName } from '#contracts/unit-name';
import { FieldFrame } from '../../ui/field/field-frame';
import { ChoiceField, type Choice } from '../../ui/field/choice-field';
import { DateField } from '../../ui/field/date-field';
import { TextField } from '../../ui/field/text-field';
import { problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { CorrectionData } from '../../data/corrections';
import { CatalogueData } from '../../data/catalogue';
import { ScreenKeys } from '../../data/keys';
import { kindChoices } from '../../data/choices';
import { LOADING } from '../../data/loaded';
import { SessionData } from '../../data/sessions';
import { Uploads } from '../../data/uploads';
import { formatNumber, plusMinus, today } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { NumberField } from '../../ui/field/number-field';
import { SHEETS } from '../../ui/field/number-sheets';
import { Refusals } from '../../ui/field/refusals';

const PARTS = [
  ['room', 'Room'],
  ['interface', 'Interface'],
  ['preamp', 'Preamp'],
  ['cables', 'Cables'],
  ['stand', 'Stand'],
  ['software', 'Software and its settings'],
] as const;
const KIND_NAMES: Readonly<Record<(typeof CALIBRATION_KINDS)[number], string>> = {
  'sound-level': 'Sound level (94 dB at 1 kHz)',
  electrical: 'Electrical (tone of known dBu)',
  loopback: 'Loopback latency',
};

/** The chains that sessions run on, each with the day from which it stood so, and their calibrations. */
@Component({
  selector: 'sd-rigs',
  imports: [Button, ChoiceField, DateField, FieldFrame, FormsModule, NumberField, ProblemBox, RouterLink, TextField],
  templateUrl: './rigs.html',
  styleUrl: './rigs.css',
  host: { class: 'page-frame' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Rigs {
  protected readonly sheets = SHEETS;
  private readonly data = inject(SessionData);
  private readonly refusals = inject(Refusals);
  private readonly corrections = inject(CorrectionData);
  private readonly uploads = inject(Uploads);
  private readonly again = signal(0);
  private readonly loaded = toSignal(toObservable(this.again).pipe(switchMap(() => this.data.rigs())), {
    initialValue: LOADING,
  });
  private readonly specimens = toSignal(inject(CatalogueData).specimens, { initialValue: LOADING });
  protected readonly loadProblem = computed(() => this.loaded().problem);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly rigs = computed(() => this.loaded().value ?? []);
  protected readonly isEmpty = computed(() => this.loaded().value?.length === 0);
  protected readonly draft = signal<RigDocument | null>(null);
  /** The rig that the draft changes; null for a new one. */
  protected readonly changes = signal<Rig | null>(null);
  /** The unused rig that the draft corrects. */
  protected readonly correcting = signal<Rig | null>(null);
  protected readonly calibrating = signal<string | null>(null);
  protected readonly calibration = signal<NewCalibration>(emptyCalibration());

  protected readonly parts = PARTS;
  protected readonly kinds = CALIBRATION_KINDS.map((value) => ({ label: KIND_NAMES[value], value }));
  protected readonly kindNames = KIND_NAMES;
  protected readonly policies: readonly Choice<RigDocument['whenOff']>[] = [
    { label: 'report as measured, flag the session', value: 'as-measured' },
    { label: 'correct by the offset, show both', value: 'correct' },
  ];
  protected readonly units = computed(() => [
    { label: 'none', value: null },
    ...(this.specimens().value ?? []).map((s) => ({ label: unitName(s), value: s.id })),
  ]);
  protected readonly resultText = resultText;
  protected readonly number = formatNumber;

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'Rigs', link: null }]);
    inject(ScreenKeys).hints.set([]);
  }

  protected unitName(id: string | null): string {
    return this.units().find((u) => u.value === id)?.label ?? 'none';
  }

  /** The parts of a rig that differ from the one before of the same name. */
  protected differences(rig: Rig): string[] {
    const own = this.rigs().filter((r) => r.document.name === rig.document.name);
    const before = own.at(own.indexOf(rig) + 1);
    return before
      ? PARTS.filter(([key]) => before.document[key] !== rig.document[key]).map(([, label]) => label.toLowerCase())
      : [];
  }

  /** Opens an unused rig as it is noted, to be corrected in place. */
  protected startCorrection(rig: Rig): void {
    this.correcting.set(rig);
    this.changes.set(null);
    this.draft.set(rig.document);
  }

  protected start(rig: Rig | null): void {
    this.correcting.set(null);
    this.changes.set(rig);
    this.draft.set(
      rig ? { ...rig.document, since: today(), why: '' } : rigDocumentSchema.parse({ name: 'Desk', since: today() }),
    );
  }

  protected change(part: Partial<RigDocument>): void {
    this.draft.update((d) => d && { ...d, ...part });
  }

  protected readonly newControl = signal<NewUnit | null>(null);
  protected readonly categories = kindChoices();

  /** A control unit is chosen before it is tested: it is noted now, and its takes come later. */
  protected addControl(): void {
    const unit = this.newControl();
    if (!unit || !unit.maker.trim() || !unit.model.trim() || !unit.label.trim()) return;
    this.data.addUnit(unit).subscribe({
      next: ({ id }) => {
        this.newControl.set(null);
        this.change({ controlUnit: id });
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  protected startControl(): void {
    this.newControl.set({ maker: '', model: '', label: 'A', category: 'microphone' });
  }

  protected changeControl(part: Partial<NewUnit>): void {
    this.newControl.update((u) => u && { ...u, ...part });
  }

  protected changePart(part: (typeof PARTS)[number][0], text: string): void {
    this.draft.update((d) => d && { ...d, [part]: text });
  }

  protected save(): void {
    const draft = this.draft();
    if (!draft || this.refusals.stop()) return;
    const corrected = this.correcting();
    const saving: Observable<unknown> = corrected
      ? this.corrections.correct({ kind: 'rig', rig: corrected.id, document: draft })
      : this.data.addRig(draft);
    saving.subscribe({
      next: () => {
        this.draft.set(null);
        this.problem.set(null);
        this.again.update((n) => n + 1);
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  protected startCalibration(rig: Rig): void {
    this.calibrating.set(rig.id);
    this.calibration.set(emptyCalibration());
  }

  protected changeCalibration(part: Partial<NewCalibration>): void {
    this.calibration.update((c) => ({ ...c, ...part }));
  }

  /** A recording from which the tone or the delay is read. */
  protected readFile(field: HTMLInputElement): void {
    const file = field.files?.item(0);
    field.value = '';
    if (!file) return;
    this.uploads.send(file).subscribe({
      next: (state) => {
        if (state.kind === 'stored') this.changeCalibration({ clip: state.clip.sha256, read: null });
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  protected saveCalibration(): void {
    const rig = this.calibrating();
    if (rig === null || this.refusals.stop()) return;
    this.data.calibrate(rig, this.calibration()).subscribe({
      next: () => {
        this.calibrating.set(null);
        this.problem.set(null);
        this.again.update((n) => n + 1);
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}

const emptyCalibration = (): NewCalibration => ({
  kind: 'electrical',
  day: today(),
  fedIn: null,
  gainDb: null,
  read: null,
  clip: null,
  note: '',
});

/** What a calibration says, in words. */
export function resultText({ kind, result, uncertainty, gainDb }: Calibration): string {
  const spread = uncertainty === null ? '' : ` ${plusMinus(uncertainty, 2)}`;
  if (kind === 'loopback') return `${formatNumber(result, 3)} ms round trip`;
  if (kind === 'electrical') return `${formatNumber(result, 2)}${spread} dBu at full scale and 0 dB of gain`;
  return `${formatNumber(result, 2)}${spread} dBFS at 94 dB SPL and 0 dB of gain${gainDb === null ? '' : ` (read at ${gainDb} dB)`}`;
}
