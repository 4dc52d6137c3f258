import { levelsAsked, type TakeLevel } from '#contracts/protocol';
import { TAKE_LEVELS } from '../../ui/take-levels';
import { notedGain, type TakeGain } from '#core/rules/take-gain';
import { GainField } from '../../ui/field/gain-field';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { ACCEPTED_SOUND } from '#core/audio/sound-files';
import { Button } from 'primeng/button';
import { ProgressBar } from 'primeng/progressbar';
import { finalize, of, switchMap, type Subscription } from 'rxjs';
import { isGivenByHand } from '#core/rules/rubric';
import { quantity, type QuantityId } from '#core/measure/registry';
import { alikeUnits } from '#core/rules/name-likeness';
import { ENDPOINTS } from '#contracts/http';
import type { Problem } from '#contracts/problem';
import type { SpecimenRow } from '#contracts/specimen';
import { unitKey, unitName } from '#contracts/unit-name';
import { PriceFields } from '../../ui/field/price-fields';
import { ChoiceField } from '../../ui/field/choice-field';
import { DateField } from '../../ui/field/date-field';
import { TextField } from '../../ui/field/text-field';
import { Api, problemOf } from '../../data/api';
import { Breadcrumb } from '../../data/breadcrumb';
import { CatalogueData } from '../../data/catalogue';
import { kindChoices, fromProtocolKey, protocolChoices, rigChoices, SOURCE_CHOICES } from '../../data/choices';
import { LOADING } from '../../data/loaded';
import { Events } from '../../data/events';
import { ScreenKeys } from '../../data/keys';
import { ProtocolData } from '../../data/protocols';
import { SessionData } from '../../data/sessions';
import { Uploads } from '../../data/uploads';
import { Figure } from '../../ui/figure';
import { formatNumber } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import {
  asNamed,
  besideOthers,
  documentOf,
  emptyDraft,
  fillFromDocument,
  isUnderWay,
  loadDraft,
  loadLastUsed,
  matched,
  saveDraft,
  saveLastUsed,
  startingProtocol,
  whatIsMissing,
  withGain,
  withSetting,
  withStep,
  newFile,
  nextUnit,
  unusedFiles,
  contentQuestion,
  withChannels,
  withContent,
  type Draft,
  type DraftFile,
} from './draft';
import { cellsAt, filledWords, sortedTables, tableSteps, withTable, type TableStep } from './draft-tables';
import { whyNotRanked } from '../unit/why-not-ranked';
import { storedWords } from './stored-words';
import { droppedFiles, isAudioName } from '../../ui/dropped-files';
import { NumberField } from '../../ui/field/number-field';
import { StepTable } from '../../ui/step-table/step-table';
import type { TableCell } from '#contracts/table-reading';
import { SHEETS } from '../../ui/field/number-sheets';
import { Refusals } from '../../ui/field/refusals';

/** A file that is on its way, or was refused. */
interface Transfer {
  readonly share: number;
  readonly problem: Problem | null;
  readonly file: File;
}

const FURTHER_SETTINGS = [
  ['voice', 'Voice', 60],
  ['place', 'Place', 60],
  ['mount', 'Mount', 60],
  ['processing', 'Processed with', 100],
] as const;
type FurtherSetting = (typeof FURTHER_SETTINGS)[number][0];

/** Bringing in a run: files, which is which, whose they are, and then watching them being measured. */
@Component({
  selector: 'sd-new-run',
  imports: [
    Button,
    ChoiceField,
    DateField,
    Figure,
    GainField,
    NumberField,
    PriceFields,
    ProblemBox,
    ProgressBar,
    RouterLink,
    StepTable,
    TextField,
  ],
  templateUrl: './new-run.html',
  styleUrl: './new-run.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewRun {
  protected readonly accepted = ACCEPTED_SOUND;
  protected readonly sheets = SHEETS;
  /** ?unit=… fills in a known specimen. */
  readonly unit = input<string>();

  private readonly api = inject(Api);
  private readonly refusals = inject(Refusals);
  private readonly uploads = inject(Uploads);
  private readonly data = inject(CatalogueData);
  private readonly events = inject(Events);
  private readonly running = new Map<string, Subscription>();

  protected readonly quantityName = (id: QuantityId): string => quantity(id).name;
  protected readonly draft = signal<Draft>(loadDraft(localStorage));
  protected readonly transfers = signal<ReadonlyMap<string, Transfer>>(new Map());
  protected readonly notes = signal<readonly string[]>([]);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly isImporting = signal(false);
  protected readonly isOver = signal(false);

  private readonly versions = toSignal(inject(ProtocolData).versions(), { initialValue: LOADING });
  protected readonly protocol = computed(
    () =>
      this.versions().value?.find(
        (v) => v.protocol.id === this.draft().protocol && v.protocol.version === this.draft().protocolVersion,
      )?.protocol,
  );
  private readonly steps = computed(() => this.protocol()?.steps ?? []);
  protected readonly protocolOptions = computed(() =>
    protocolChoices(
      (this.versions().value ?? []).map((v) => v.protocol),
      this.draft().category,
    ),
  );
  private readonly rigs = toSignal(inject(SessionData).rigs(), { initialValue: LOADING });
  protected readonly rigOptions = computed(() => rigChoices(this.rigs().value ?? []));
  protected readonly stepOptions = computed(() => [
    { label: 'not used', value: null },
    ...this.steps().map((s) => ({ label: s.title, value: s.id })),
  ]);
  private readonly specimens = toSignal(this.data.specimens, { initialValue: LOADING });
  protected readonly makers = computed(() => [...new Set((this.specimens().value ?? []).map((s) => s.maker))].sort());
  protected readonly models = computed(() => [
    ...new Set((this.specimens().value ?? []).filter((s) => s.maker === this.draft().maker).map((s) => s.model)),
  ]);
  protected readonly known = computed(() => {
    const { maker, model, label } = this.draft();
    return (this.specimens().value ?? []).find(
      (s) => s.maker === maker.trim() && s.model === model.trim() && s.label === label.trim(),
    );
  });
  private readonly rubrics = toSignal(this.data.rubrics, { initialValue: LOADING });
  /** What points are given for by hand, by the rules of this kind. */
  protected readonly byHand = computed(() =>
    (this.rubrics().value?.find((r) => r.category === this.draft().category)?.criteria ?? []).filter(isGivenByHand),
  );
  /** Units of the archive that the typed name may mean, though it is written otherwise. */
  protected readonly alike = computed(() => {
    const own = (this.specimens().value ?? []).filter((s) => s.category === this.draft().category);
    return this.draft().isAnother === unitKey(this.draft()) ? [] : alikeUnits(this.draft(), own);
  });
  protected readonly missing = computed(() => whatIsMissing(this.draft(), this.steps(), this.alike()));
  protected readonly pending = computed(() => [...this.transfers()].map(([name, transfer]) => ({ name, ...transfer })));

  private readonly imported = computed(() => this.draft().imported);
  private readonly watched = toSignal(
    toObservable(computed(() => this.imported()?.specimenId ?? null)).pipe(
      switchMap((id) => (id === null ? of(LOADING) : this.data.sheet(id))),
    ),
    { initialValue: LOADING },
  );
  protected readonly watchedRun = computed(() => {
    const imported = this.imported();
    const sheet = this.watched().value;
    const run = sheet?.runs.find((r) => r.id === imported?.runId);
    return imported && sheet && run
      ? { row: sheet.row, run, created: imported.created, whyNotRanked: whyNotRanked(sheet) }
      : null;
  });
  protected readonly share = computed(() => {
    const jobs = this.events.jobs().filter((j) => j.specimenId === this.imported()?.specimenId && j.total === 1);
    const takes = this.watchedRun()?.run.takes ?? [];
    const done = takes.filter((t) => t.analysis.status === 'done').length;
    const partial = jobs.filter((j) => j.state === 'running').reduce((s, j) => s + j.done, 0);
    return takes.length === 0 ? 0 : Math.min(100, Math.round((100 * (done + partial)) / takes.length));
  });

  protected readonly sources = SOURCE_CHOICES;
  protected readonly categories = kindChoices();
  protected readonly number = formatNumber;
  protected readonly unitName = unitName;

  constructor() {
    inject(Breadcrumb).crumbs.set([{ label: 'New run', link: null }]);
    inject(ScreenKeys).hints.set([
      { keys: 'O', does: 'Choose files' },
      { keys: 'Ctrl Enter', does: 'Import the run' },
    ]);
    effect(() => saveDraft(localStorage, this.draft()));
    effect(() => {
      const row = (this.specimens().value ?? []).find((s) => s.id === this.unit());
      if (row && !this.draft().imported && !this.draft().maker) {
        this.change({ maker: row.maker, model: row.model, label: row.label });
        this.setCategory(row.category);
      }
    });
    // A draft starts with what was used last; a protocol that is not there any more is chosen anew.
    effect(() => {
      const versions = this.versions().value;
      if (!versions || this.protocol() || this.draft().imported) return;
      const last = loadLastUsed(localStorage);
      const isUntouched = this.draft().files.length === 0 && this.draft().maker === '' && this.draft().protocol === '';
      if (isUntouched && last) {
        const { category, rig, source, currency } = last;
        this.change({ category, rig, source, currency });
      }
      const start = startingProtocol(versions, this.draft().category, last);
      if (start) this.useProtocol(start);
    });
  }

  protected change(part: Partial<Draft>): void {
    this.draft.update((d) => ({ ...d, ...part }));
  }

  protected setCategory(category: Draft['category']): void {
    this.change({ category });
    const start = startingProtocol(this.versions().value ?? [], category, loadLastUsed(localStorage));
    if (start) this.useProtocol(start);
  }

  protected setProtocol(key: string): void {
    this.useProtocol(fromProtocolKey(key));
  }

  /** Another protocol has other steps: what was matched by name is matched anew. */
  private useProtocol(protocol: Pick<Draft, 'protocol' | 'protocolVersion'>): void {
    this.change(protocol);
    this.change({ files: matched(this.draft().files, this.steps()) });
  }

  protected useKnown({ maker, model, label }: SpecimenRow): void {
    this.change({ maker, model, label });
  }

  protected sayAnother(): void {
    this.change({ isAnother: unitKey(this.draft()) });
  }

  protected setPoints(criterion: string, value: number | null): void {
    this.change({ points: { ...this.draft().points, [criterion]: value } });
  }

  protected changeFile(name: string, part: Partial<DraftFile>): void {
    this.change({ files: this.draft().files.map((f) => (f.name === name ? { ...f, ...part } : f)) });
  }

  protected setStep(file: DraftFile, step: string | null): void {
    this.change({ files: withStep(this.draft().files, file.name, step, this.steps()) });
  }

  /** Levels and speeds that a file of its step is made at. */
  protected levelsOf(file: DraftFile): typeof TAKE_LEVELS {
    const step = this.steps().find((s) => s.id === file.step);
    const asked = step ? levelsAsked(step) : [];
    return TAKE_LEVELS.filter(({ id }) => asked.includes(id) || file[id] !== undefined);
  }

  protected setLevel(file: DraftFile, level: TakeLevel, value: number | null): void {
    this.changeFile(file.name, { [level]: value ?? undefined });
  }

  protected readonly furtherSettings = FURTHER_SETTINGS;
  protected readonly beside = (file: DraftFile): string => besideOthers(file, this.draft().files);

  protected settingOf(file: DraftFile, name: FurtherSetting): string {
    return String(file.settings?.[name] ?? '');
  }

  /** Rows of a draft that came back with something in them are open; closing is the person's own after that. */
  private readonly openAtStart = new Set(
    this.draft()
      .files.filter((f) => FURTHER_SETTINGS.some(([name]) => this.settingOf(f, name) !== ''))
      .map((f) => f.name),
  );
  protected hasFurther({ name }: DraftFile): boolean {
    return this.openAtStart.has(name);
  }

  /** What was typed in other rows of this run. */
  protected namedBefore(name: FurtherSetting): string[] {
    return [...new Set(this.draft().files.map((f) => this.settingOf(f, name)))].filter((t) => t !== '').sort();
  }

  protected setSetting({ name }: DraftFile, setting: FurtherSetting, text: string): void {
    this.change({ files: this.draft().files.map((f) => (f.name === name ? withSetting(f, setting, text) : f)) });
  }

  protected readonly storedWords = storedWords;

  protected readonly isUnderWay = computed(() => isUnderWay(this.draft()));
  /** Steps that are filled in rather than recorded. */
  protected readonly tableSteps = computed(() => tableSteps(this.steps()));
  private readonly sorted = computed(() => sortedTables(this.draft().tables, this.steps()));
  /** Tables that the chosen protocol does not have, by their steps. */
  protected readonly strangeTables = computed(() => (this.steps().length === 0 ? [] : this.sorted().strange));

  /** Tables that hold something when the page opens are open; closing is the person's own after that. */
  protected readonly openTables: ReadonlySet<string> = new Set(this.draft().tables.map((t) => t.step));

  protected filledWords({ step, table }: TableStep): string {
    return filledWords(table, this.cellsAt(step.id));
  }

  protected dropStrangeTables(): void {
    this.change({ tables: this.sorted().fitting });
  }

  protected cellsAt(step: string): readonly TableCell[] {
    return cellsAt(this.draft().tables, step);
  }

  protected setTable(step: string, cells: readonly TableCell[]): void {
    this.change({ tables: withTable(this.draft().tables, step, cells) });
  }

  /** What would be asked of the server; null where nothing can be told from what files hold. */
  protected readonly contentQuestion = computed(() => contentQuestion(this.draft(), this.steps()));
  protected readonly isMatching = signal(false);

  protected matchByContent(): void {
    const body = this.contentQuestion();
    if (!body || this.isMatching()) return;
    this.problem.set(null);
    this.isMatching.set(true);
    this.api
      .call(ENDPOINTS.matchSteps, { body })
      .pipe(finalize(() => this.isMatching.set(false)))
      .subscribe({
        next: (proposals) => this.change({ files: withContent(this.draft().files, proposals, this.steps()) }),
        error: (error: unknown) => this.problem.set(problemOf(error)),
      });
  }

  /** A recording of several microphones at once becomes a file for each; which is whose is said row by row. */
  protected split(file: DraftFile): void {
    if (!file.clip) return;
    this.problem.set(null);
    this.api.call(ENDPOINTS.splitChannels, { params: { sha256: file.clip.sha256 } }).subscribe({
      next: ({ clips }) => this.change({ files: withChannels(this.draft().files, file.name, clips) }),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }

  /** Files of this run that became no take: those of another unit, mostly. */
  protected readonly unused = computed(() => unusedFiles(this.draft()));

  protected goOn(): void {
    this.draft.set(nextUnit(this.draft()));
  }

  protected readonly notedGain = notedGain;

  protected setGain(file: DraftFile, gain: TakeGain | null): void {
    this.change({ files: withGain(this.draft().files, file.name, gain, this.steps()) });
  }

  protected remove(name: string): void {
    this.running.get(name)?.unsubscribe();
    this.running.delete(name);
    this.setTransfer(name, null);
    this.change({ files: this.draft().files.filter((f) => f.name !== name) });
  }

  protected startAnew(): void {
    this.running.forEach((s) => s.unsubscribe());
    this.running.clear();
    this.transfers.set(new Map());
    this.notes.set([]);
    this.problem.set(null);
    this.draft.set(emptyDraft());
  }

  protected async drop(event: DragEvent): Promise<void> {
    event.preventDefault();
    this.isOver.set(false);
    if (event.dataTransfer) await this.take(await droppedFiles(event.dataTransfer));
  }

  protected async choose(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    await this.take([...(field.files ?? [])]);
    field.value = '';
  }

  protected key(event: KeyboardEvent, files: HTMLInputElement): void {
    const isTyping = (event.target as HTMLElement).closest('input, textarea') !== null;
    if (event.key.toLowerCase() === 'o' && !isTyping && !event.ctrlKey && !event.metaKey) files.click();
    if (event.key === 'Enter' && event.ctrlKey && this.missing().length === 0) this.importRun();
  }

  protected importRun(): void {
    if (this.refusals.stop()) return;
    this.problem.set(null);
    this.isImporting.set(true);
    const clips = Object.fromEntries(
      this.draft().files.flatMap((f) => (f.clip && f.step ? [[f.name, f.clip.sha256]] : [])),
    );
    const document = documentOf({ ...this.draft(), tables: this.sorted().fitting });
    this.api.call(ENDPOINTS.importRun, { body: { document, clips } }).subscribe({
      next: (imported) => {
        this.isImporting.set(false);
        saveLastUsed(localStorage, this.draft());
        this.change({ imported });
      },
      error: (error: unknown) => {
        this.isImporting.set(false);
        this.problem.set(problemOf(error));
      },
    });
  }

  protected send(file: File, keepPart: boolean): void {
    this.running.get(file.name)?.unsubscribe();
    this.setTransfer(file.name, { share: 0, problem: null, file });
    const subscription = this.uploads.send(file, keepPart).subscribe({
      next: (state) => {
        if (state.kind === 'sending') this.setTransfer(file.name, { share: state.share, problem: null, file });
        else {
          this.setTransfer(file.name, null);
          this.changeFile(file.name, { clip: state.clip });
        }
      },
      error: (error: unknown) => this.setTransfer(file.name, { share: 0, problem: problemOf(error), file }),
    });
    this.running.set(file.name, subscription);
  }

  private async take(files: readonly File[]): Promise<void> {
    if (this.imported()) this.startAnew();
    const audio = files.filter((f) => isAudioName(f.name));
    const runFile = files.find((f) => f.name === 'run.json');
    const others = files.filter((f) => !isAudioName(f.name) && f !== runFile && !f.name.startsWith('.'));
    const notes =
      others.length > 0 ? [`Left out, no sound that is known here: ${others.map((f) => f.name).join(', ')}.`] : [];
    // A file that comes again takes the place of the one before, with all that was said of it.
    const names = new Set(this.draft().files.map((f) => f.name));
    const added = audio.filter((f) => !names.has(f.name)).map((f) => newFile(f.name));
    const all = [...this.draft().files, ...added].map((f) =>
      audio.some((a) => a.name === f.name) ? { ...f, clip: null } : f,
    );
    this.change({ files: matched(asNamed(all, this.draft().named), this.steps()) });
    if (runFile) notes.push(...(await this.readRunFile(runFile)));
    this.notes.set(notes);
    for (const file of audio) this.send(file, false);
  }

  private async readRunFile(file: File): Promise<string[]> {
    try {
      const { draft, notes } = fillFromDocument(this.draft(), JSON.parse(await file.text()));
      this.draft.set(draft);
      return notes;
    } catch {
      return ['run.json was not used: it is not valid JSON.'];
    }
  }

  private setTransfer(name: string, transfer: Transfer | null): void {
    this.transfers.update((map) => {
      const next = new Map(map);
      if (transfer) next.set(name, transfer);
      else next.delete(name);
      return next;
    });
  }
}
