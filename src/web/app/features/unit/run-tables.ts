import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { Button } from 'primeng/button';
import type { Run } from '#contracts/specimen';
import type { TableCell } from '#contracts/table-reading';
import { CorrectionData } from '../../data/corrections';
import { Saving } from '../../data/saving';
import { Refusals } from '../../ui/field/refusals';
import { ProblemBox } from '../../ui/problem-box';
import { StepTable } from '../../ui/step-table/step-table';
import { RunTable } from './run-table';

type Table = Run['tables'][number];

/** The tables of a run: as they are filled in, to be corrected, or to be filled in yet. */
@Component({
  selector: 'sd-run-tables',
  imports: [Button, ProblemBox, RunTable, StepTable],
  template: `
    @for (table of run().tables; track table.step) {
      @if (table.asked && open()?.step === table.step) {
        <div class="editor panel">
          <b>{{ table.title }}</b>
          <sd-step-table [table]="table.asked" [cells]="cells()" (cellsChange)="cells.set($event)" />
          @if (saving.problem(); as p) {
            <sd-problem-box [problem]="p" />
          }
          <div class="line">
            <p-button size="small" label="Keep the table" [loading]="saving.isBusy()" (onClick)="save(table)" />
            <p-button size="small" severity="secondary" label="Leave it as it was" (onClick)="open.set(null)" />
          </div>
        </div>
      } @else if (table.cells.length > 0) {
        <div class="filled">
          <sd-run-table [table]="table" />
          @if (table.asked) {
            <p-button
              size="small"
              [text]="true"
              label="Correct"
              [ariaLabel]="'Correct the table ' + table.title + ' of ' + run().date"
              (onClick)="edit(table)"
            />
          }
        </div>
      }
    }
    @if (empty().length > 0) {
      <div class="line small">
        <span class="quiet">Not filled in:</span>
        @for (table of empty(); track table.step) {
          <p-button
            size="small"
            [text]="true"
            [label]="table.title"
            [ariaLabel]="'Fill in the table ' + table.title + ' of ' + run().date"
            (onClick)="edit(table)"
          />
        }
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      justify-items: start;
    }
    .filled {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 8px;
      align-items: start;
      max-width: 100%;
    }
    .filled sd-run-table {
      overflow-x: auto;
    }
    .editor {
      display: grid;
      gap: 8px;
      padding: 12px;
      max-width: 100%;
    }
    .line {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 8px;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunTables {
  readonly run = input.required<Run>();

  private readonly data = inject(CorrectionData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();
  /** The table that is being filled in. */
  protected readonly open = signal<Table | null>(null);
  protected readonly cells = signal<readonly TableCell[]>([]);
  protected readonly empty = computed(() =>
    this.run().tables.filter((t) => t.cells.length === 0 && t.step !== this.open()?.step),
  );

  protected edit(table: Table): void {
    this.saving.problem.set(null);
    this.cells.set(table.cells);
    this.open.set(table);
  }

  protected save({ step }: Table): void {
    if (this.refusals.stop()) return;
    const cells = [...this.cells()];
    this.saving.run(this.data.correct({ kind: 'run-table', run: this.run().id, step, cells }), () =>
      this.open.set(null),
    );
  }
}
