import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Button } from 'primeng/button';
import type { LineMark, Proposal, ReviewLine } from '#contracts/review';
import { TextField } from '../../ui/field/text-field';
import { LineMarkNote } from './line-mark';
import { changedAt, markOf, moved, renewed, reworded, without } from './review-draft';

/** Lines of one part of a review: written, moved, taken out, and marked where their fact has changed. */
@Component({
  selector: 'sd-line-list',
  imports: [Button, LineMarkNote, TextField],
  template: `
    <h3>{{ title() }}</h3>
    @for (line of lines(); track $index; let i = $index; let last = $last) {
      <div class="line">
        <sd-text-field
          class="grow"
          [label]="title() + ', line ' + (i + 1)"
          bare
          [most]="400"
          [value]="line.text"
          (valueChange)="lineChange(i, $event)"
        />
        <p-button
          icon="pi pi-arrow-up"
          [text]="true"
          size="small"
          [disabled]="i === 0"
          [ariaLabel]="'Move up: ' + line.text"
          (onClick)="linesChange.emit(moved(lines(), i, -1))"
        />
        <p-button
          icon="pi pi-arrow-down"
          [text]="true"
          size="small"
          [disabled]="last"
          [ariaLabel]="'Move down: ' + line.text"
          (onClick)="linesChange.emit(moved(lines(), i, 1))"
        />
        <p-button
          icon="pi pi-times"
          [text]="true"
          size="small"
          [ariaLabel]="'Take out: ' + line.text"
          (onClick)="linesChange.emit(without(lines(), i))"
        />
        <sd-line-mark [line]="line" [mark]="markOf(line, marks())" [unit]="unit()" (renewAsked)="renew(i)" />
      </div>
    } @empty {
      <p class="quiet small">Nothing yet: write a line, or take one that is proposed.</p>
    }
    <p-button
      icon="pi pi-plus"
      [text]="true"
      size="small"
      label="Write a line"
      [ariaLabel]="'Write a line: ' + title()"
      (onClick)="add()"
    />
  `,
  styleUrl: './lines.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LineList {
  readonly title = input.required<string>();
  readonly lines = input.required<readonly ReviewLine[]>();
  readonly marks = input.required<readonly LineMark[]>();
  readonly proposals = input.required<readonly Proposal[]>();
  readonly unit = input.required<string>();
  readonly linesChange = output<ReviewLine[]>();

  protected readonly moved = moved<ReviewLine>;
  protected readonly without = without<ReviewLine>;
  protected readonly markOf = markOf;

  protected lineChange(at: number, text: string): void {
    this.linesChange.emit(changedAt(this.lines(), at, reworded(this.lines()[at], text)));
  }

  protected renew(at: number): void {
    this.linesChange.emit(changedAt(this.lines(), at, renewed(this.lines()[at], this.proposals())));
  }

  protected add(): void {
    this.linesChange.emit([...this.lines(), { text: '', restsOn: null }]);
  }
}
