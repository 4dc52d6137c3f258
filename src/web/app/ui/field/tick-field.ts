import { ChangeDetectionStrategy, Component, booleanAttribute, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Checkbox } from 'primeng/checkbox';

let made = 0;

/** Yes or no; what it is about stands between its tags. */
@Component({
  selector: 'sd-tick-field',
  imports: [Checkbox, FormsModule],
  template: `
    <p-checkbox
      [inputId]="id"
      [binary]="true"
      [disabled]="disabled()"
      [ngModel]="value()"
      [ngModelOptions]="{ standalone: true }"
      (ngModelChange)="valueChange.emit($event)"
    />
    <label [for]="id"><ng-content /></label>
  `,
  styles: `
    :host {
      display: inline-flex;
      gap: 6px;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TickField {
  readonly value = input.required<boolean>();
  readonly valueChange = output<boolean>();
  readonly disabled = input(false, { transform: booleanAttribute });
  protected readonly id = `tick-${++made}`;
}
