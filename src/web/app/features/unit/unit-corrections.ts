import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Button } from 'primeng/button';
import { switchMap } from 'rxjs';
import type { Problem } from '#contracts/problem';
import { problemOf } from '../../data/api';
import { CorrectionData } from '../../data/corrections';
import { LOADING } from '../../data/loaded';
import { momentDay } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';

/** What was corrected, newest first, each with its way back. */
@Component({
  selector: 'sd-unit-corrections',
  imports: [Button, ProblemBox],
  template: `
    @if (problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
    <ul>
      @for (c of corrections(); track c.id) {
        <li [class.quiet]="c.undoneAt !== null">
          <span class="num">{{ dayOf(c.madeAt) }}</span>
          <span>{{ c.text }}{{ c.reason ? ' — ' + c.reason : '' }}</span>
          @if (c.undoneAt; as day) {
            <span>undone {{ dayOf(day) }}</span>
          } @else {
            <p-button
              size="small"
              [text]="true"
              icon="pi pi-undo"
              label="Undo"
              [ariaLabel]="'Undo: ' + c.text"
              (onClick)="undo(c.id)"
            />
          }
        </li>
      } @empty {
        <li class="quiet">Nothing was corrected.</li>
      }
    </ul>
  `,
  styles: `
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitCorrections {
  protected readonly dayOf = momentDay;
  /** Of one unit; null: of everything. */
  readonly unit = input.required<string | null>();

  private readonly data = inject(CorrectionData);
  private readonly loaded = toSignal(
    toObservable(this.unit).pipe(switchMap((id) => (id === null ? this.data.all() : this.data.ofUnit(id)))),
    {
      initialValue: LOADING,
    },
  );
  protected readonly corrections = computed(() => this.loaded().value ?? []);
  protected readonly problem = signal<Problem | null>(null);

  protected undo(id: string): void {
    this.data.undo(id).subscribe({
      next: () => this.problem.set(null),
      error: (error: unknown) => this.problem.set(problemOf(error)),
    });
  }
}
