import { ChangeDetectionStrategy, Component, booleanAttribute, computed, input, output } from '@angular/core';
import type { Slot } from '#contracts/session-plan';
import type { Step } from '#contracts/protocol';
import { stepState, type StepState } from '../sessions/session-progress';

const ICONS: Readonly<Record<StepState, string>> = {
  kept: 'pi pi-check',
  redo: 'pi pi-replay',
  open: 'pi pi-question',
  empty: 'pi pi-circle',
};

/** The steps of a unit's turn, each with where it stands. */
@Component({
  selector: 'sd-step-rail',
  template: `
    <ol>
      @for (row of rows(); track row.step.id; let i = $index) {
        <li>
          <button
            type="button"
            [class]="row.state"
            [class.here]="row.step.id === here()"
            [attr.aria-current]="row.step.id === here() ? 'step' : null"
            [disabled]="disabled()"
            (click)="chosen.emit(row.step.id)"
          >
            <i [class]="icons[row.state]" aria-hidden="true"></i>
            <span>{{ i + 1 }}. {{ row.step.title }}</span>
            <span class="visually-hidden">{{ row.state }}</span>
          </button>
        </li>
      }
    </ol>
  `,
  styleUrl: './step-rail.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StepRail {
  readonly slot = input.required<Slot>();
  readonly steps = input.required<readonly Step[]>();
  readonly here = input.required<string>();
  readonly disabled = input(false, { transform: booleanAttribute });
  readonly chosen = output<string>();

  protected readonly icons = ICONS;
  protected readonly rows = computed(() => this.steps().map((step) => ({ step, state: stepState(this.slot(), step) })));
}
