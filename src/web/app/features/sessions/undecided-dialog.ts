import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Button } from 'primeng/button';
import type { Protocol } from '#contracts/protocol';
import type { SlotTake } from '#contracts/session-plan';
import { DIALOG } from '../../ui/dialog/dialog';

/** Asks before takes that nobody has decided on stay beside a run. Open while there are any. */
@Component({
  selector: 'sd-undecided-dialog',
  imports: [Button, DIALOG],
  template: `
    <p-dialog
      header="Some takes are not decided on"
      [visible]="takes().length > 0"
      (visibleChange)="closed.emit()"
      [modal]="true"
      [style]="{ width: '520px', 'max-width': '96vw' }"
    >
      <p>
        Nobody has kept these or put them aside. They can stay beside the run: they count for no figure, and are not
        lost.
      </p>
      <ul>
        @for (t of takes(); track t.id) {
          <li>{{ titleOf(t.step) }}, take {{ t.attempt }}</li>
        }
      </ul>
      <ng-template #footer>
        <p-button severity="secondary" label="Decide first" (onClick)="closed.emit(); decideFirst.emit()" />
        <p-button label="Leave them beside the run" (onClick)="leaveThem.emit()" />
      </ng-template>
    </p-dialog>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UndecidedDialog {
  readonly takes = input.required<readonly SlotTake[]>();
  readonly protocol = input.required<Protocol>();
  readonly decideFirst = output();
  readonly leaveThem = output();
  readonly closed = output();

  protected titleOf(step: string): string {
    return this.protocol().steps.find((s) => s.id === step)?.title ?? step;
  }
}
