import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Button } from 'primeng/button';
import { DIALOG } from './dialog/dialog';
import { HearingReminder } from './hearing-reminder';

/** The reminder that stands before the first sound of a session. */
@Component({
  selector: 'sd-hearing-dialog',
  imports: [Button, DIALOG],
  template: `
    <p-dialog
      header="Before you listen"
      [visible]="reminder.isOpen()"
      (visibleChange)="reminder.answer(false)"
      [modal]="true"
      [closable]="false"
      [style]="{ width: '440px', 'max-width': '94vw' }"
    >
      <p>
        Takes at full gain, clipped takes and plosives can be dangerously loud in headphones. Turn the volume down
        before you start, then up to where you need it. Long sessions count too: occupational practice is 85 dBA over 8
        hours, and half the time for every 3 dB more. This is not medical advice.
      </p>
      <ng-template #footer>
        <p-button severity="secondary" label="Not now" (onClick)="reminder.answer(false)" />
        <p-button label="The volume is down" (onClick)="reminder.answer(true)" [autofocus]="true" />
      </ng-template>
    </p-dialog>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HearingDialog {
  protected readonly reminder = inject(HearingReminder);
}
