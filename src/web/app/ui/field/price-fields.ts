import { ChangeDetectionStrategy, Component, booleanAttribute, input, output } from '@angular/core';
import { PRICE_KINDS, TAX_WORDS, type PriceKind, type TaxWord } from '#core/rules/rubric';
import type { PriceInput } from '#contracts/run-document';
import { ChoiceField } from './choice-field';
import { CurrencyField } from './currency-field';
import { DateField } from './date-field';
import { NumberField } from './number-field';
import { priceSheet } from './number-sheets';
import { TextField } from './text-field';

/** A price as it is typed. */
export interface PriceDraft {
  readonly amount: number | null;
  readonly currency: string;
  readonly kind: PriceKind;
  /** The day on which it held. */
  readonly date: string;
  readonly region?: string;
  readonly tax?: TaxWord | null;
  readonly shop?: string;
  readonly note?: string;
}

/** A price as it is noted: what nobody has filled in is not there. */
export function notedPrice({ currency, kind, date, region, tax, shop, note }: PriceDraft, amount: number): PriceInput {
  const words = Object.entries({ region, shop, note }).flatMap(([key, text]) => {
    const trimmed = text?.trim() ?? '';
    return trimmed === '' ? [] : [[key, trimmed] as const];
  });
  return { amount, currency, kind, date, ...Object.fromEntries(words), ...(tax ? { tax } : {}) };
}

/** How much, in which currency, of which kind, and on which day it held. */
@Component({
  selector: 'sd-price-fields',
  imports: [ChoiceField, CurrencyField, DateField, NumberField, TextField],
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
    @if (detailed()) {
      <sd-text-field
        label="Region"
        [bare]="bare()"
        placeholder="Region"
        [most]="60"
        [value]="price().region ?? ''"
        (valueChange)="change({ region: $event })"
      />
      <sd-choice-field
        label="Tax"
        [bare]="bare()"
        [options]="taxes"
        [value]="price().tax ?? null"
        (valueChange)="change({ tax: $event })"
      />
      <sd-text-field
        label="Shop, in words"
        [bare]="bare()"
        placeholder="Shop, in words"
        [most]="80"
        [value]="price().shop ?? ''"
        (valueChange)="change({ shop: $event })"
      />
      <sd-text-field
        label="Note"
        [bare]="bare()"
        placeholder="Note"
        [most]="500"
        [value]="price().note ?? ''"
        (valueChange)="change({ note: $event })"
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

  /** Where it holds, whether tax is in it, and who asks it can be said as well. */
  readonly detailed = input(false, { transform: booleanAttribute });

  protected readonly taxes = [
    { label: 'tax not noted', value: null },
    ...TAX_WORDS.map((value) => ({ label: `${value} tax`, value })),
  ];
  protected readonly kinds = PRICE_KINDS.map((value) => ({ label: value, value }));
  protected readonly sheetOf = priceSheet;

  protected change(part: Partial<PriceDraft>): void {
    this.priceChange.emit({ ...this.price(), ...part });
  }
}
