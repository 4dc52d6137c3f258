import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { Button } from 'primeng/button';
import { lastValueFrom } from 'rxjs';
import { cellSheet } from '#domain/step-tables/cell-sheet';
import { pastedBlock } from '#domain/step-tables/pasted-block';
import { readStepTable } from '#domain/step-tables/read-step-table';
import { inOrder, isAt, withCell, type CellPlace, type StepTable as Table } from '#domain/step-tables/step-table';
import type { Problem } from '#contracts/problem';
import type { TableCell } from '#contracts/table-reading';
import { problemOf } from '../../data/api';
import { SessionData } from '../../data/sessions';
import { Uploads } from '../../data/uploads';
import { ChoiceField } from '../field/choice-field';
import { NumberField } from '../field/number-field';
import { ProblemBox } from '../problem-box';
import { decodedText } from './decoded-text';
import { tableLines, UnreadableTable } from './table-lines';
import { takenOver } from './take-over';

/** Decimals of a reading from a recording: more would be noise. */
const READING_DECIMALS = 3;
/** A table of numbers is no larger; a recording that was chosen by mistake is. */
const MOST_BYTES = 2_000_000;
const FROM_ITS_NAMES = '';

/** A table of a step: numbers typed in, pasted, read from a file of numbers, or from a recording per cell. */
@Component({
  selector: 'sd-step-table',
  imports: [Button, ChoiceField, NumberField, ProblemBox],
  templateUrl: './step-table.html',
  styleUrl: './step-table.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StepTable {
  readonly table = input.required<Table>();
  readonly cells = input.required<readonly TableCell[]>();
  readonly cellsChange = output<TableCell[]>();

  private readonly data = inject(SessionData);
  private readonly uploads = inject(Uploads);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly told = signal<readonly string[]>([]);
  /** Column that a file of one column of numbers is for; '': its names say it. */
  protected readonly into = signal(FROM_ITS_NAMES);
  protected readonly intoChoices = computed(() => [
    { label: 'each column by its name', value: FROM_ITS_NAMES },
    ...this.table().columns.map((column) => ({ label: `its first numbers into “${column}”`, value: column })),
  ]);
  protected readonly sheet = computed(() => cellSheet(this.table()));
  private picked: CellPlace | null = null;

  protected valueOf(row: string, column: string): number | null {
    return this.cells().find((c) => isAt(c, row, column))?.value ?? null;
  }

  protected isMeasured(row: string, column: string): boolean {
    return this.cells().some((c) => isAt(c, row, column) && c.source === 'measured');
  }

  protected type(place: CellPlace, value: number | null): void {
    this.told.set([]);
    this.set(place, value === null ? null : { value, source: 'typed', clip: null });
  }

  protected pick(place: CellPlace, field: HTMLInputElement): void {
    this.picked = place;
    field.click();
  }

  /** A recording fills the cell that it was chosen for. */
  protected async readRecording(field: HTMLInputElement): Promise<void> {
    const [file, place] = [field.files?.item(0), this.picked];
    field.value = '';
    if (!file || !place) return;
    this.problem.set(null);
    try {
      const state = await lastValueFrom(this.uploads.send(file));
      if (state.kind !== 'stored') return;
      const { toneDbfs, latencyMs } = await lastValueFrom(this.data.reading(state.clip.sha256));
      const isLatency = this.table().fromFile === 'latency';
      const value = isLatency ? latencyMs : toneDbfs;
      if (value !== null) {
        const rounded = Number(value.toFixed(READING_DECIMALS));
        this.told.set([]);
        this.set(place, { value: rounded, source: 'measured', clip: state.clip.sha256 });
      } else
        this.told.set([
          isLatency
            ? 'No delay was found: the recording needs the sent signal on one channel and the returned one on the other.'
            : 'No steady tone was found in this recording.',
        ]);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  /** A file of numbers fills what it has names for. */
  protected async readNumbers(field: HTMLInputElement): Promise<void> {
    const file = field.files?.item(0);
    field.value = '';
    if (!file) return;
    if (file.size > MOST_BYTES)
      this.told.set([`Nothing was read from ${file.name}: it is too large for a table of numbers.`]);
    else await this.read(decodedText(new Uint8Array(await file.arrayBuffer())), file.name, null);
  }

  /** More than one number was copied: they go down from the cell, or where their names say. */
  protected paste(event: ClipboardEvent, place: CellPlace): void {
    const text = event.clipboardData?.getData('text/plain').replace(/[\r\n]+$/, '') ?? '';
    if (!/[\t\n]/.test(text)) return;
    event.preventDefault();
    void this.read(text, 'what was pasted', place);
  }

  private async read(text: string, from: string, place: CellPlace | null): Promise<void> {
    try {
      const lines = await tableLines(text);
      const block = place && pastedBlock(lines, this.table(), place);
      const read = block ?? readStepTable(lines, this.table(), this.into() || null);
      const { cells, told } = takenOver(this.cells(), read, from);
      this.told.set(told);
      this.cellsChange.emit(inOrder(cells, this.table()));
    } catch (error) {
      if (!(error instanceof UnreadableTable)) throw error;
      this.told.set([`Nothing was read from ${from}: ${error.message}.`]);
    }
  }

  private set(place: CellPlace, content: Parameters<typeof withCell>[2]): void {
    this.cellsChange.emit(inOrder(withCell(this.cells(), place, content), this.table()));
  }
}
