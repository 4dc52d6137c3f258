import { ChangeDetectionStrategy, Component, computed, effect, input, output, signal } from '@angular/core';
import { Button } from 'primeng/button';
import { TAKE_CHECKS } from '#core/rules/take-checks/take-check';
import type { SlotTake } from '#contracts/session-plan';
import { DIALOG } from '../../ui/dialog/dialog';
import { TextField } from '../../ui/field/text-field';
import { isOverruled, type Reasons } from './take-decision';

/** Asks for reasons before a take is kept against what was found. */
@Component({
  selector: 'sd-overrule-dialog',
  imports: [Button, DIALOG, TextField],
  template: `
    <p-dialog
      header="Keep it all the same"
      [visible]="take() !== null"
      (visibleChange)="closed.emit()"
      [modal]="true"
      [style]="{ width: '560px', 'max-width': '96vw' }"
    >
      @if (take(); as t) {
        <div class="reasons">
          <p>Say why each of these does not matter. The reasons are kept with the take.</p>
          @for (f of t.findings; track f.check) {
            <sd-text-field
              [label]="names[f.check] + ': ' + f.what + (f.weight === 'look' ? ' (need not be overruled)' : '')"
              [value]="reasons()[f.check] ?? ''"
              (valueChange)="say(f.check, $event)"
            />
          }
        </div>
      }
      <ng-template #footer>
        <p-button severity="secondary" label="Not after all" (onClick)="closed.emit()" />
        <p-button label="Keep it" [disabled]="!canKeep()" (onClick)="overruled.emit(reasons())" />
      </ng-template>
    </p-dialog>
  `,
  styles: `
    .reasons {
      display: grid;
      gap: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OverruleDialog {
  readonly take = input.required<SlotTake | null>();
  readonly closed = output();
  readonly overruled = output<Reasons>();

  protected readonly names = TAKE_CHECKS;
  protected readonly reasons = signal<Reasons>({});
  protected readonly canKeep = computed(() => {
    const take = this.take();
    return take !== null && isOverruled(take, this.reasons());
  });

  constructor() {
    effect(() => {
      this.take();
      this.reasons.set({});
    });
  }

  protected say(check: string, reason: string): void {
    this.reasons.update((all) => ({ ...all, [check]: reason }));
  }
}
