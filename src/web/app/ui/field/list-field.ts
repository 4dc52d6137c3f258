import { ChangeDetectionStrategy, Component } from '@angular/core';
import { InputText } from 'primeng/inputtext';
import { readList } from '#core/text/read-text';
import type { Reading } from '#core/text/reading';
import { FieldFrame } from './field-frame';
import { TypedField } from './typed-field';
import { TypedInput } from './typed-input';

/** A field for several short texts, parted by commas. */
@Component({
  selector: 'sd-list-field',
  imports: [FieldFrame, InputText, TypedInput],
  templateUrl: './typed-field.html',
  styles: `
    :host {
      display: grid;
    }
    input {
      width: 100%;
      min-width: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ListField extends TypedField<string[]> {
  protected readonly nothing = [];
  protected readonly accepted = (): string => 'a list, parted by commas';

  protected read(text: string): Reading<string[]> {
    return readList(text);
  }

  protected show(value: readonly string[]): string {
    return value.join(', ');
  }
}
