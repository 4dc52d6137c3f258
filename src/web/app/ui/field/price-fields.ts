import { ChangeDetectionStrategy, Component, booleanAttribute, input, output } from '@angular/core';
import { PRICE_KINDS, type PriceKind } from '#core/rules/rubric';
import { ChoiceField } from './choice-field';
import { CurrencyField } from './currency-field';
import { DateField } from './date-field';
import { NumberField } from './number-field';
import { priceSheet } from './number-sheets';

/** A price as it is typed. */
export interface PriceDraft {
  readonly amount: number | null;
  readonly currency: string;
  readonly kind: PriceKind;
  /** The day on which it held. */
  readonly date: string;
}

/** How much, in which currency, of which kind, and on which day it held. */
@Component({
  selector: 'sd-price-fields',
  imports: [ChoiceField, CurrencyField, DateField, NumberField],
  template: `
    <sd-number-field
      label="Price"
      [bare]="bare()"
      [placeholder]="bare() ? 'Price' : ''"
      [required]="required()"
      [value]="price().amount"
      (valueChange)="change({ amount: $event })"
      [sheet]="sheetOf(price().currency)"
    />
    <sd-currency-field
      label="Currency"
      [bare]="bare()"
      required
      [value]="price().currency"
      (valueChange)="change({ currency: $event })"
    />
    <sd-choice-field
      label="Kind of price"
      [bare]="bare()"
      [options]="kinds"
      [value]="price().kind"
      (valueChange)="change({ kind: $event })"
    />
    @if (!undated()) {
      <sd-date-field
        label="Held on"
        [bare]="bare()"
        required
        [value]="price().date"
        (valueChange)="change({ date: $event ?? price().date })"
      />
    }
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PriceFields {
  readonly price = input.required<PriceDraft>();
  readonly priceChange = output<PriceDraft>();
  readonly bare = input(false, { transform: booleanAttribute });
  /** An empty amount is refused. */
  readonly required = input(false, { transform: booleanAttribute });
  /** Its day is said elsewhere. */
  readonly undated = input(false, { transform: booleanAttribute });

  protected readonly kinds = PRICE_KINDS.map((value) => ({ label: value, value }));
  protected readonly sheetOf = priceSheet;

  protected change(part: Partial<PriceDraft>): void {
    this.priceChange.emit({ ...this.price(), ...part });
  }
}
