import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { InputText } from 'primeng/inputtext';
import { Textarea } from 'primeng/textarea';
import { readText } from '#core/text/read-text';
import type { Reading } from '#core/text/reading';
import { FieldFrame } from './field-frame';
import { TypedField } from './typed-field';

/** A field for words, in one line or in several, told at each letter. What is too long is refused, not cut. */
@Component({
  selector: 'sd-text-field',
  imports: [FieldFrame, InputText, Textarea],
  template: `
    <sd-field-frame [label]="label()" [bare]="bare()" [for]="id()" [noteId]="noteId" [refusal]="refusal()">
      @if (rows() > 1) {
        <textarea
          #field
          pTextarea
          [id]="id()"
          [rows]="rows()"
          [value]="shown()"
          [disabled]="disabled()"
          [attr.aria-label]="spoken()"
          [attr.aria-invalid]="refusal() ? 'true' : null"
          [attr.aria-describedby]="refusal() ? noteId : null"
          [placeholder]="placeholder()"
          (input)="take(field.value)"
        ></textarea>
      } @else {
        <input
          #field
          pInputText
          [type]="type()"
          autocomplete="off"
          [id]="id()"
          [value]="shown()"
          [disabled]="disabled()"
          [attr.list]="suggestions().length > 0 ? id() + '-known' : null"
          [attr.aria-label]="spoken()"
          [attr.aria-invalid]="refusal() ? 'true' : null"
          [attr.aria-describedby]="refusal() ? noteId : null"
          [placeholder]="placeholder()"
          (input)="take(field.value)"
        />
      }
      @if (suggestions().length > 0) {
        <datalist [id]="id() + '-known'">
          @for (s of suggestions(); track s) {
            <option [value]="s"></option>
          }
        </datalist>
      }
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
