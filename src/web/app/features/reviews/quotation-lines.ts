import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Button } from 'primeng/button';
import { catchError, of, switchMap } from 'rxjs';
import { CONSENTS, type Consent, type Quotation } from '#contracts/review';
import { LOADING } from '../../data/loaded';
import { ReviewData } from '../../data/reviews';
import { ChoiceField } from '../../ui/field/choice-field';
import { DateField } from '../../ui/field/date-field';
import { TextField } from '../../ui/field/text-field';
import { changedAt, unquoted, without } from './review-draft';

/** What others said, with whether they agreed to be quoted: what was not agreed to is kept here and never published. */
@Component({
  selector: 'sd-quotation-lines',
  imports: [Button, ChoiceField, DateField, TextField],
  template: `
    <h3>Said by others</h3>
    @for (line of lines(); track $index; let i = $index) {
      <div class="line" role="group" [attr.aria-label]="'Quotation ' + (i + 1)">
        <sd-text-field
          class="grow"
          label="Words"
          bare
          placeholder="Words, as they were said"
          [most]="600"
          [value]="line.words"
          (valueChange)="change(i, { words: $event })"
        />
        <sd-text-field
          label="Said by"
          bare
          placeholder="Said by"
          [most]="120"
          [value]="line.saidBy"
          (valueChange)="change(i, { saidBy: $event })"
        />
        <sd-date-field label="Said on" bare [value]="line.saidOn" (valueChange)="change(i, { saidOn: $event })" />
        <sd-choice-field
          label="Consent"
          bare
          [options]="consents"
          [value]="line.consent"
          (valueChange)="change(i, { consent: $event })"
        />
        <p-button
          icon="pi pi-times"
          [text]="true"
          size="small"
          [ariaLabel]="'Take out: ' + line.words"
          (onClick)="linesChange.emit(without(lines(), i))"
        />
      </div>
    } @empty {
      <p class="quiet small">Nothing yet. Only what was agreed to is published; without a name it is “a listener”.</p>
    }
    <div class="row">
      <p-button icon="pi pi-plus" [text]="true" size="small" label="Add a quotation" (onClick)="add('')" />
      @for (word of heard(); track word) {
        <p-button [text]="true" size="small" [label]="'Heard in a test: “' + word + '”'" (onClick)="add(word)" />
      }
    </div>
  `,
  styleUrl: './lines.css',
  styles: `
    .row {
      display: flex;
      flex-wrap: wrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuotationLines {
  readonly lines = input.required<readonly Quotation[]>();
  readonly unit = input.required<string>();
  readonly linesChange = output<Quotation[]>();
  private readonly data = inject(ReviewData);
  private readonly character = toSignal(
    toObservable(this.unit).pipe(switchMap((id) => this.data.character(id).pipe(catchError(() => of(LOADING))))),
    { initialValue: LOADING },
  );
  /** Own words of listeners that are not among the quotations yet. */
  protected readonly heard = computed(() => unquoted(this.character().value?.heard ?? [], this.lines()));
  protected readonly without = without<Quotation>;
  protected readonly consents = CONSENTS.map((value) => ({ value, label: CONSENT_NAMES[value] }));

  protected change(at: number, part: Partial<Quotation>): void {
    this.linesChange.emit(changedAt(this.lines(), at, { ...this.lines()[at], ...part }));
  }

  protected add(words: string): void {
    this.linesChange.emit([...this.lines(), { words, saidBy: '', saidOn: null, consent: 'not asked' }]);
  }
}

const CONSENT_NAMES: Readonly<Record<Consent, string>> = {
  given: 'agreed to be quoted',
  'not asked': 'not asked yet',
  refused: 'does not want it',
};
