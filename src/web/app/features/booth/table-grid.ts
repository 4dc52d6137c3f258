import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Button } from 'primeng/button';
import { lastValueFrom } from 'rxjs';
import type { Step } from '#contracts/protocol';
import type { Problem } from '#contracts/problem';
import type { Slot } from '#contracts/session-plan';
import type { TableCell } from '#contracts/table-reading';
import { problemOf } from '../../data/api';
import { SessionData } from '../../data/sessions';
import { Uploads } from '../../data/uploads';
import { NumberField } from '../../ui/field/number-field';
import { ProblemBox } from '../../ui/problem-box';
import { Refusals } from '../../ui/field/refusals';

/** A table of a step: numbers typed in, or read from a recording per cell. */
@Component({
  selector: 'sd-table-grid',
  imports: [Button, NumberField, ProblemBox],
  template: `
    @if (table(); as t) {
      <div class="scroll">
        <table>
          <caption class="quiet">
            {{
              t.cell
            }}, in
            {{
              t.unit
            }}
          </caption>
          <thead>
            <tr>
              <th class="head">{{ t.rowName }} \\ {{ t.columnName }}</th>
              @for (column of t.columns; track column) {
                <th class="head">{{ column }}</th>
              }
            </tr>
          </thead>
          <tbody>
            @for (row of t.rows; track row) {
              <tr>
                <th scope="row">{{ row }}</th>
                @for (column of t.columns; track column) {
                  <td>
                    <sd-number-field
                      [value]="valueOf(row, column)"
                      (valueChange)="set(row, column, $event, 'typed', null)"
                      [sheet]="{ unit: '' }"
                      [label]="row + ', ' + column"
                      bare
                    />
                    @if (t.fromFile) {
                      <p-button
                        size="small"
                        [text]="true"
                        [icon]="isMeasured(row, column) ? 'pi pi-file-check' : 'pi pi-file'"
                        [ariaLabel]="'Read ' + row + ', ' + column + ' from a recording'"
                        (onClick)="pick(row, column, field)"
                      />
                    }
                  </td>
                }
              </tr>
            }
          </tbody>
        </table>
      </div>
      <input #field type="file" accept=".wav,.flac" hidden aria-label="Recording of a cell" (change)="read(field)" />
      @if (problem(); as p) {
        <sd-problem-box [problem]="p" />
      }
      <div class="line">
        <p-button label="Keep the table" icon="pi pi-check" (onClick)="save()" />
        <span class="quiet" role="status">{{ told() }}</span>
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .scroll {
      overflow-x: auto;
    }
    caption {
      text-align: left;
    }
    th,
    td {
      padding: 2px 6px;
      text-align: left;
      white-space: nowrap;
    }
    .line {
      display: flex;
      gap: 12px;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TableGrid {
  readonly slot = input.required<Slot>();
  readonly step = input.required<Step>();

  private readonly data = inject(SessionData);
  private readonly uploads = inject(Uploads);
  private readonly refusals = inject(Refusals);
  protected readonly table = computed(() => this.step().table);
  protected readonly cells = signal<readonly TableCell[]>([]);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly told = signal('');
  /** Table whose cells these are. */
  private shown = '';
  private picked: { row: string; column: string } | null = null;

  constructor() {
    effect(() => {
      const [slot, step] = [this.slot(), this.step()];
      const stored = slot.tables.find((t) => t.step === step.id)?.cells ?? [];
      untracked(() => {
        const table = `${slot.id}/${step.id}`;
        const isAnother = this.shown !== table;
        this.shown = table;
        if (isAnother) this.told.set('');
        // What is being typed stays; another table, or an untouched one, takes over what is stored.
        if (isAnother || this.cells().length === 0) this.cells.set(stored);
      });
    });
  }

  protected valueOf(row: string, column: string): number | null {
    return this.cells().find((c) => c.row === row && c.column === column)?.value ?? null;
  }

  protected isMeasured(row: string, column: string): boolean {
    return this.cells().some((c) => c.row === row && c.column === column && c.source === 'measured');
  }

  protected set(
    row: string,
    column: string,
    value: number | null,
    source: TableCell['source'],
    clip: string | null,
  ): void {
    this.told.set('');
    this.cells.update((all) => {
      const others = all.filter((c) => c.row !== row || c.column !== column);
      return value === null ? others : [...others, { row, column, value, source, clip }];
    });
  }

  protected pick(row: string, column: string, field: HTMLInputElement): void {
    this.picked = { row, column };
    field.click();
  }

  protected async read(field: HTMLInputElement): Promise<void> {
    const [file, cell, table] = [field.files?.item(0), this.picked, this.table()];
    field.value = '';
    if (!file || !cell || !table) return;
    try {
      const state = await lastValueFrom(this.uploads.send(file));
      if (state.kind !== 'stored') return;
      const { toneDbfs, latencyMs } = await lastValueFrom(this.data.reading(state.clip.sha256));
      const value = table.fromFile === 'latency' ? latencyMs : toneDbfs;
      if (value === null) {
        this.told.set(
          table.fromFile === 'latency'
            ? 'No delay was found: the recording needs the sent signal on one channel and the returned one on the other.'
            : 'No steady tone was found in this recording.',
        );
        return;
      }
      this.set(cell.row, cell.column, Math.round(value * 1000) / 1000, 'measured', state.clip.sha256);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  protected save(): void {
    if (this.refusals.stop()) return;
    this.data.fillTable(this.slot().id, { step: this.step().id, cells: [...this.cells()] }).subscribe({
      next: () => {
        this.problem.set(null);
        this.told.set('Kept.');
      },
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}
