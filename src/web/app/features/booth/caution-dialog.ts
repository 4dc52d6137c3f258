import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { Button } from 'primeng/button';
import { CAUTIONS, type CautionId } from '#core/rules/cautions';
import { DIALOG } from '../../ui/dialog/dialog';

/** A caution that comes before a step, once in a session. */
@Component({
  selector: 'sd-caution-dialog',
  imports: [Button, DIALOG],
  template: `
    <p-dialog
      [header]="shown()?.title ?? ''"
      [visible]="shown() !== null"
      [modal]="true"
      [closable]="false"
      [style]="{ width: '460px', 'max-width': '96vw' }"
    >
      @if (shown(); as c) {
        <p>{{ c.text }}</p>
        <p class="small quiet">Local rules and qualified people come first.</p>
      }
      <ng-template #footer>
        @if (caution(); as id) {
          <p-button label="Understood, for this session" [autofocus]="true" (onClick)="understood.emit(id)" />
        }
      </ng-template>
    </p-dialog>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CautionDialog {
  readonly caution = input.required<CautionId | null>();
  readonly understood = output<CautionId>();

  protected readonly shown = computed(() => {
    const id = this.caution();
    return id && CAUTIONS[id];
  });
}
