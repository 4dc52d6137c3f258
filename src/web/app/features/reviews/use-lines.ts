import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Button } from 'primeng/button';
import type { LineMark, Proposal, UseLine } from '#contracts/review';
import { ChoiceField } from '../../ui/field/choice-field';
import { TextField } from '../../ui/field/text-field';
import { LineReason } from './line-reason';
import { changedAt, renewed, without } from './review-draft';

/** For whom it is and for whom it is not, use by use. */
@Component({
  selector: 'sd-use-lines',
  imports: [Button, ChoiceField, LineReason, TextField],
  template: `
    <h3>For whom, and for whom not</h3>
    @for (line of lines(); track $index; let i = $index) {
      <div class="line" role="group" [attr.aria-label]="'Use ' + (i + 1)">
        <sd-text-field
          class="use"
          label="Use"
          bare
          placeholder="Use"
          [most]="120"
          [suggestions]="uses()"
          [value]="line.use"
          (valueChange)="change(i, { use: $event })"
        />
        <sd-choice-field
          label="Suits"
          bare
          [options]="suits"
          [value]="line.suits"
          (valueChange)="change(i, { suits: $event })"
        />
        <sd-line-reason
          [line]="line"
          [name]="line.use"
          [marks]="marks()"
          [unit]="unit()"
          (textChange)="change(i, { text: $event })"
          (takenOut)="linesChange.emit(without(lines(), i))"
          (renewAsked)="renew(i)"
        />
      </div>
    } @empty {
      <p class="quiet small">Nothing yet. Uses, and what each asks for, stand under “How this desk reviews”.</p>
    }
    <p-button icon="pi pi-plus" [text]="true" size="small" label="Add a use" (onClick)="add()" />
  `,
  styleUrl: './lines.css',
  styles: `
    .use {
      flex: 0 1 180px;
    }
    .line {
      --reason-width: 140px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UseLines {
  readonly lines = input.required<readonly UseLine[]>();
  readonly uses = input.required<readonly string[]>();
  readonly marks = input.required<readonly LineMark[]>();
  readonly proposals = input.required<readonly Proposal[]>();
  readonly unit = input.required<string>();
  readonly linesChange = output<UseLine[]>();

  protected readonly suits = [
    { label: 'for it', value: 'for' as const },
    { label: 'not for it', value: 'not for' as const },
  ];
  protected readonly without = without<UseLine>;

  protected change(at: number, part: Partial<UseLine>): void {
    this.linesChange.emit(changedAt(this.lines(), at, { ...this.lines()[at], ...part }));
  }

  protected renew(at: number): void {
    const own = this.proposals().find((p) => p.use === this.lines()[at].use && p.restsOn.rule === 'for-use');
    const line = renewed(this.lines()[at], this.proposals());
    this.linesChange.emit(changedAt(this.lines(), at, { ...line, suits: own?.suits ?? line.suits }));
  }

  protected add(): void {
    this.linesChange.emit([...this.lines(), { use: '', suits: 'for', text: '', restsOn: null }]);
  }
}
