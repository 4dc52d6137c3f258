import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Button } from 'primeng/button';
import type { LineMark, ReviewLine } from '#contracts/review';
import { TextField } from '../../ui/field/text-field';
import { LineMarkNote } from './line-mark';
import { markOf } from './review-draft';

/** The end of a line that names something: why, taking it out, and what the line rests on. */
@Component({
  selector: 'sd-line-reason',
  imports: [Button, LineMarkNote, TextField],
  template: `
    <sd-text-field
      class="grow"
      label="Why"
      bare
      placeholder="Why"
      [most]="400"
      [value]="line().text"
      (valueChange)="textChange.emit($event)"
    />
    <p-button
      icon="pi pi-times"
      [text]="true"
      size="small"
      [ariaLabel]="'Take out: ' + name()"
      (onClick)="takenOut.emit()"
    />
    <sd-line-mark [line]="line()" [mark]="markOf(line(), marks())" [unit]="unit()" (renewAsked)="renewAsked.emit()" />
  `,
  styles: `
    :host {
      display: contents;
    }
    .grow {
      flex: 1 1 var(--reason-width, 240px);
    }
    sd-line-mark {
      flex: 1 1 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LineReason {
  readonly line = input.required<ReviewLine>();
  /** What the line names. */
  readonly name = input.required<string>();
  readonly marks = input.required<readonly LineMark[]>();
  readonly unit = input.required<string>();
  readonly textChange = output<string>();
  readonly takenOut = output();
  readonly renewAsked = output();

  protected readonly markOf = markOf;
}
