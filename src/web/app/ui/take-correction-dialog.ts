import {
  ChangeDetectionStrategy,
  Component,
  booleanAttribute,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { Button } from 'primeng/button';
import { notedGain } from '#core/rules/take-gain';
import type { Problem } from '#contracts/problem';
import type { TakeLevel } from '#contracts/protocol';
import type { TakeSettings } from '#contracts/session-plan';
import { DIALOG } from './dialog/dialog';
import { Refusals } from './field/refusals';
import { ProblemBox } from './problem-box';
import { TakeSettingsForm } from './take-settings-form';

/** What is noted with a take, under the name by which people know it. */
export interface NotedTake {
  readonly name: string;
  readonly settings: TakeSettings;
  readonly note: string;
}

/** What was noted wrongly with a take is put right. Open while there is a take. */
@Component({
  selector: 'sd-take-correction-dialog',
  imports: [Button, DIALOG, ProblemBox, TakeSettingsForm],
  template: `
    <p-dialog
      [header]="'Correct ' + (noted()?.name ?? '')"
      [visible]="noted() !== null"
      (visibleChange)="closed.emit()"
      [modal]="true"
      [style]="{ width: '640px', 'max-width': '96vw' }"
    >
      @if (draft(); as d) {
        <p class="small quiet">For what was noted wrongly. <ng-content /></p>
        <sd-take-settings-form
          idPrefix="c-"
          [asks]="asks()"
          [asksProcessing]="needsGain()"
          [settings]="d.settings"
          [note]="d.note"
          (settingsChange)="draft.set({ name: d.name, settings: $event, note: d.note })"
          (noteChange)="draft.set({ name: d.name, settings: d.settings, note: $event })"
        />
        @if (lacksGain()) {
          <p class="bad small">
            A take of the archive says its gain: decibels, the place of the dial, “auto”, or “unknown”.
          </p>
        }
      }
      <ng-content select="[further]" />
      @if (problem(); as p) {
        <sd-problem-box [problem]="p" />
      }
      <ng-template #footer>
        <p-button severity="secondary" label="Leave it" (onClick)="closed.emit()" />
        <p-button label="Correct it" [disabled]="lacksGain()" (onClick)="save()" />
      </ng-template>
    </p-dialog>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TakeCorrectionDialog {
  /** As it is noted now; null while nothing is corrected. */
  readonly noted = input.required<NotedTake | null>();
  /** Why the last try was refused. */
  readonly problem = input<Problem | null>(null);
  readonly needsGain = input(false, { transform: booleanAttribute });
  /** Levels and speeds that are asked for. */
  readonly asks = input<readonly TakeLevel[]>([]);
  readonly closed = output();
  readonly saved = output<NotedTake>();

  private readonly refusals = inject(Refusals);
  protected readonly draft = signal<NotedTake | null>(null);
  protected readonly lacksGain = computed(() => {
    const draft = this.draft();
    return this.needsGain() && draft !== null && notedGain(draft.settings) === null;
  });

  constructor() {
    effect(() => this.draft.set(this.noted()));
  }

  protected save(): void {
    const draft = this.draft();
    if (draft && !this.refusals.stop()) this.saved.emit(draft);
  }
}
