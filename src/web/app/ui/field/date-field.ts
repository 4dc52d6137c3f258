import { ChangeDetectionStrategy, Component } from '@angular/core';
import { InputText } from 'primeng/inputtext';
import { ACCEPTED_DAY, readDay } from '#core/text/read-day';
import type { Reading } from '#core/text/reading';
import { today } from '../format';
import { FieldFrame } from './field-frame';
import { TypedField } from './typed-field';
import { TypedInput } from './typed-input';

/** A field for a day: shown as year, month, day everywhere, whatever the browser's language is; a calendar beside it. */
@Component({
  selector: 'sd-date-field',
  imports: [FieldFrame, InputText, TypedInput],
  template: `
    <sd-field-frame [label]="label()" [bare]="bare()" [for]="id()" [noteId]="noteId" [refusal]="refusal()">
      <span class="pair">
        <input
          #field
          pInputText
          [sdTypedInput]="this"
          type="text"
          [placeholder]="placeholder() || 'year-month-day'"
          [title]="accepted()"
          (change)="take(field.value)"
        />
        <button
          type="button"
          [disabled]="disabled()"
          [attr.aria-label]="label() + ', calendar'"
          (click)="open(calendar)"
        >
          <i class="pi pi-calendar" aria-hidden="true"></i>
        </button>
        <input
          #calendar
          type="date"
          tabindex="-1"
          aria-hidden="true"
          [value]="value() ?? ''"
          (change)="take(calendar.value)"
        />
      </span>
    </sd-field-frame>
  `,
  styles: `
    :host {
      display: inline-grid;
    }
    .pair {
      position: relative;
      display: inline-flex;
      justify-self: start;
    }
    input[type='text'] {
      width: 136px;
      min-width: 0;
      padding-right: 32px;
      font-variant-numeric: tabular-nums;
    }
    button {
      position: absolute;
      inset: 1px 1px 1px auto;
      width: 30px;
      border: 0;
      background: none;
      color: var(--quiet);
      cursor: pointer;
    }
    button:hover:enabled {
      color: var(--ink);
    }
    /* Only its calendar is wanted, which opens where it stands. */
    input[type='date'] {
      position: absolute;
      bottom: 0;
      left: 0;
      width: 1px;
      height: 1px;
      min-height: 0;
      padding: 0;
      border: 0;
      opacity: 0;
      pointer-events: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DateField extends TypedField<string | null> {
  protected readonly nothing = null;
  protected readonly accepted = (): string => ACCEPTED_DAY;

  protected read(text: string): Reading<string> {
    return readDay(text, today());
  }

  protected show(value: string | null): string {
    return value ?? '';
  }

  protected open(calendar: HTMLInputElement): void {
    calendar.showPicker();
  }
}
