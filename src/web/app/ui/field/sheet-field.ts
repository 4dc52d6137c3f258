import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { InputText } from 'primeng/inputtext';
import { readSheetValue } from '#core/gear/sheet/read-sheet-value';
import type { SheetField, SheetValue } from '#core/gear/sheet/sheet-field';
import { sheetValueText } from '#core/gear/sheet/sheet-value';
import { unitsOf } from '#core/gear/sheet/sheet-units';
import type { Reading } from '#core/text/reading';
import { FieldFrame } from './field-frame';
import { KnownWords } from './known-words';
import { TypedField } from './typed-field';
import { TypedInput } from './typed-input';

/** A field of a data sheet: a number with its unit and conditions, words of a list or one's own, yes or no. */
@Component({
  selector: 'sd-sheet-field',
  imports: [FieldFrame, InputText, KnownWords, TypedInput],
  template: `
    <sd-field-frame [label]="label()" [bare]="bare()" [for]="id()" [noteId]="noteId" [refusal]="refusal()">
      <input
        #field
        pInputText
        [sdTypedInput]="this"
        type="text"
        [attr.list]="suggestions().length > 0 ? id() + '-known' : null"
        [placeholder]="hint()"
        (change)="take(field.value)"
      />
      <sd-known-words [field]="id()" [words]="suggestions()" />
    </sd-field-frame>
  `,
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
export class SheetEntryField extends TypedField<SheetValue | null> {
  readonly of = input.required<SheetField>();

  protected readonly nothing = null;
  protected readonly suggestions = computed<readonly string[]>(() => {
    const field = this.of();
    if (field.type === 'yes-no') return ['yes', 'no'];
    return field.type === 'choice' || field.type === 'several' ? field.options : [];
  });
  /** What the field takes, in so few words that they fit into it. */
  protected readonly hint = computed(() => {
    const field = this.of();
    if (field.type === 'number') return unitsOf(field.unit).filter(Boolean).slice(0, 3).join(', ');
    if (field.type === 'yes-no') return 'yes or no';
    return field.type === 'text' ? '' : field.options.slice(0, 3).join(', ');
  });
  protected readonly accepted = this.hint;

  protected read(text: string): Reading<SheetValue> {
    return readSheetValue(text, this.of());
  }

  protected show(value: SheetValue | null): string {
    return value === null ? '' : sheetValueText(value);
  }
}
