import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { LabelledField } from './labelled-field';
import { NumberField } from './number-field';
import { SHEETS } from './number-sheets';

/** The gain that a take is made with, in dB. */
@Component({
  selector: 'sd-gain-field',
  imports: [NumberField],
  template: `
    <sd-number-field
      [label]="label()"
      [bare]="bare()"
      [inputId]="id()"
      [disabled]="disabled()"
      [value]="gainDb()"
      (valueChange)="gainDbChange.emit($event)"
      [sheet]="sheets.gain"
      [step]="1"
    />
  `,
  styles: `
    :host {
      display: inline-grid;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GainField extends LabelledField {
  readonly gainDb = input.required<number | null>();
  readonly gainDbChange = output<number | null>();

  protected readonly sheets = SHEETS;
}
