import { ChangeDetectionStrategy, Component, booleanAttribute, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Select } from 'primeng/select';
import { FieldFrame } from './field-frame';
import { LabelledField } from './labelled-field';

/** One of what can be chosen. */
export interface Choice<T> {
  readonly label: string;
  readonly value: T;
  /** Said after the label in the list. */
  readonly note?: string;
}

/** A field for one of several values. */
@Component({
  selector: 'sd-choice-field',
  imports: [FieldFrame, FormsModule, Select],
  template: `
    <sd-field-frame [label]="label()" [bare]="bare()" [labelId]="labelId">
      <p-select
        [inputId]="id()"
        [options]="$any(options())"
        optionLabel="label"
        optionValue="value"
        [filter]="filter()"
        [size]="small() ? 'small' : undefined"
        [placeholder]="placeholder()"
        [disabled]="disabled()"
        [ngModel]="value()"
        [ngModelOptions]="{ standalone: true }"
        (ngModelChange)="valueChange.emit($event)"
        [ariaLabel]="spoken() ?? undefined"
        [ariaLabelledBy]="bare() ? undefined : labelId"
        appendTo="body"
      >
        <ng-template #item let-o
          >{{ o.label }}
          @if (o.note) {
            <span class="quiet small after">{{ o.note }}</span>
          }
        </ng-template>
      </p-select>
      <ng-content />
    </sd-field-frame>
  `,
  styles: `
    :host {
      display: grid;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChoiceField<T> extends LabelledField {
  readonly options = input.required<readonly Choice<T>[]>();
  /** A value that is none of the options shows the placeholder. */
  readonly value = input.required<T | null | undefined>();
  readonly valueChange = output<T>();
  readonly placeholder = input('');
  /** A field to search the options by. */
  readonly filter = input(false, { transform: booleanAttribute });
  readonly small = input(false, { transform: booleanAttribute });
}
