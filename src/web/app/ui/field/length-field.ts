import { ChangeDetectionStrategy, Component, booleanAttribute, computed, input, output } from '@angular/core';
import { NumberField } from './number-field';
import { inCm, inM, SHEETS } from './number-sheets';
import { LabelledField } from './labelled-field';

/** A distance or a height: kept in metres, typed and shown in centimetres or any other unit of length. */
@Component({
  selector: 'sd-length-field',
  imports: [NumberField],
  template: `
    <sd-number-field
      [label]="label()"
      [bare]="bare()"
      [inputId]="id()"
      [disabled]="disabled()"
      [value]="centimetres()"
      (valueChange)="metresChange.emit(inM($event))"
      [sheet]="height() ? sheets.height : sheets.distance"
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
export class LengthField extends LabelledField {
  readonly metres = input.required<number | null>();
  readonly metresChange = output<number | null>();
  /** May be negative: below what it is measured from. */
  readonly height = input(false, { transform: booleanAttribute });

  protected readonly sheets = SHEETS;
  protected readonly inM = inM;
  protected readonly centimetres = computed(() => inCm(this.metres()));
}
