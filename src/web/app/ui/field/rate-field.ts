import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { LabelledField } from './labelled-field';
import { NumberField } from './number-field';
import { inHz, inKhz, SHEETS } from './number-sheets';

/** A sample rate: kept in hertz, typed and shown in kilohertz. */
@Component({
  selector: 'sd-rate-field',
  imports: [NumberField],
  template: `
    <sd-number-field
      [label]="label()"
      [bare]="bare()"
      [inputId]="id()"
      [value]="kilohertz()"
      (valueChange)="hertzChange.emit(inHz($event))"
      [sheet]="sheets.rate"
    />
  `,
  styles: `
    :host {
      display: inline-grid;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RateField extends LabelledField {
  readonly hertz = input.required<number | null>();
  readonly hertzChange = output<number | null>();

  protected readonly sheets = SHEETS;
  protected readonly inHz = inHz;
  protected readonly kilohertz = computed(() => inKhz(this.hertz()));
}
