import { ChangeDetectionStrategy, Component } from '@angular/core';
import { InputText } from 'primeng/inputtext';
import { readCurrency } from '#core/text/read-text';
import type { Reading } from '#core/text/reading';
import { FieldFrame } from './field-frame';
import { TypedField } from './typed-field';
import { TypedInput } from './typed-input';

/** A field for the code of a currency. */
@Component({
  selector: 'sd-currency-field',
  imports: [FieldFrame, InputText, TypedInput],
  templateUrl: './typed-field.html',
  styles: `
    :host {
      display: inline-grid;
    }
    input {
      width: 64px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CurrencyField extends TypedField<string> {
  protected readonly nothing = '';
  protected readonly accepted = (): string => 'the code of a currency, as EUR';

  protected read(text: string): Reading<string> {
    return readCurrency(text);
  }

  protected show(value: string): string {
    return value;
  }
}
