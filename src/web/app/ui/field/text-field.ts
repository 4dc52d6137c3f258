import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { InputText } from 'primeng/inputtext';
import { Textarea } from 'primeng/textarea';
import { readText } from '#core/text/read-text';
import type { Reading } from '#core/text/reading';
import { FieldFrame } from './field-frame';
import { KnownWords } from './known-words';
import { TypedField } from './typed-field';
import { TypedInput } from './typed-input';

/** A field for words, in one line or in several, told at each letter. What is too long is refused, not cut. */
@Component({
  selector: 'sd-text-field',
  imports: [FieldFrame, InputText, KnownWords, Textarea, TypedInput],
  template: `
    <sd-field-frame [label]="label()" [bare]="bare()" [for]="id()" [noteId]="noteId" [refusal]="refusal()">
      @if (rows() > 1) {
        <textarea
          #field
          pTextarea
          [sdTypedInput]="this"
          [rows]="rows()"
          [placeholder]="placeholder()"
          (input)="take(field.value)"
        ></textarea>
      } @else {
        <input
          #field
          pInputText
          [sdTypedInput]="this"
          [type]="type()"
          [attr.list]="suggestions().length > 0 ? id() + '-known' : null"
          [placeholder]="placeholder()"
          (input)="take(field.value)"
        />
      }
      <sd-known-words [field]="id()" [words]="suggestions()" />
      <ng-content />
    </sd-field-frame>
  `,
  styles: `
    :host {
      display: grid;
    }
    :is(input, textarea) {
      width: 100%;
      min-width: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TextField extends TypedField<string> {
  readonly rows = input(1);
  readonly type = input<'text' | 'search'>('text');
  /** Most characters that are kept; 0: as many as somebody writes. */
  readonly most = input(0);
  readonly suggestions = input<readonly string[]>([]);

  protected readonly nothing = '';
  protected readonly accepted = computed(() =>
    this.most() > 0 ? `a text of at most ${this.most()} characters` : 'a text',
  );

  protected read(text: string): Reading<string> {
    return readText(text, this.most());
  }

  protected show(value: string): string {
    return value;
  }
}
