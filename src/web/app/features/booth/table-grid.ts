import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Button } from 'primeng/button';
import type { Step } from '#contracts/protocol';
import type { Problem } from '#contracts/problem';
import type { Slot } from '#contracts/session-plan';
import type { TableCell } from '#contracts/table-reading';
import { problemOf } from '../../data/api';
import { SessionData } from '../../data/sessions';
import { Refusals } from '../../ui/field/refusals';
import { ProblemBox } from '../../ui/problem-box';
import { StepTable } from '../../ui/step-table/step-table';

/** The table of a step in a session: filled in, and kept with the turn of its unit. */
@Component({
  selector: 'sd-table-grid',
  imports: [Button, ProblemBox, StepTable],
  template: `
    @if (step().table; as table) {
      <sd-step-table [table]="table" [cells]="cells()" (cellsChange)="take($event)" />
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
  private readonly refusals = inject(Refusals);
  protected readonly cells = signal<readonly TableCell[]>([]);
  protected readonly problem = signal<Problem | null>(null);
  protected readonly told = signal('');
  /** Where the cells belong. */
  private at: { readonly slot: string; readonly step: string } | null = null;
  /** Something was put in that is not kept yet. */
  private isChanged = false;

  constructor() {
    effect(() => {
      const [slot, step] = [this.slot(), this.step()];
      const stored = slot.tables.find((t) => t.step === step.id)?.cells ?? [];
      untracked(() => {
        const isAnother = this.at?.slot !== slot.id || this.at.step !== step.id;
        if (isAnother) this.leave();
        this.at = { slot: slot.id, step: step.id };
        // What is being typed stays; another table, or an untouched one, takes over what is stored.
        if (isAnother || !this.isChanged) this.cells.set(stored);
      });
    });
    inject(DestroyRef).onDestroy(() => this.leave());
  }

  protected take(cells: readonly TableCell[]): void {
    this.told.set('');
    this.isChanged = true;
    this.cells.set(cells);
  }

  protected save(): void {
    if (!this.refusals.stop()) this.keep();
  }

  /** Whoever goes on without a word loses nothing. */
  private leave(): void {
    this.told.set('');
    if (this.isChanged) this.keep();
  }

  private keep(): void {
    if (!this.at) return;
    this.isChanged = false;
    this.data.fillTable(this.at.slot, { step: this.at.step, cells: [...this.cells()] }).subscribe({
      next: () => {
        this.problem.set(null);
        this.told.set('Kept.');
      },
      error: (error: unknown) => {
        this.isChanged = true;
        this.problem.set(problemOf(error));
      },
    });
  }
}
