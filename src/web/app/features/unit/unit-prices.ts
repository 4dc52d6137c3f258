import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { whereWords } from '#core/rules/price-rule';
import type { SpecimenSheet } from '#contracts/specimen';
import { CatalogueData } from '../../data/catalogue';
import { CorrectionData } from '../../data/corrections';
import { Saving } from '../../data/saving';
import { PriceFields, notedPrice, type PriceDraft } from '../../ui/field/price-fields';
import { Refusals } from '../../ui/field/refusals';
import { formatPrice, today } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';
import { PriceHistory } from './price-history';

type Price = SpecimenSheet['prices'][number];

const emptyPrice = (): PriceDraft => ({ amount: null, currency: 'EUR', kind: 'street', date: today() });

/** Prices of a unit: each can be corrected or taken out, and a further one noted. */
@Component({
  selector: 'sd-unit-prices',
  imports: [Button, FormsModule, PriceFields, PriceHistory, ProblemBox],
  template: `
    <table class="plain-table narrow">
      <thead>
        <tr>
          <th class="head">Held on</th>
          <th class="head">Kind</th>
          <th class="head right">Price</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        @for (p of prices(); track p.id) {
          <tr>
            @if (correcting()?.id === p.id && correcting(); as c) {
              <td colspan="4">
                <form
                  class="inline"
                  (ngSubmit)="saveCorrection()"
                  aria-label="Correct the price"
                  (keydown.escape)="correcting.set(null)"
                >
                  <sd-price-fields
                    bare
                    required
                    detailed
                    [price]="c.draft"
                    (priceChange)="correcting.set({ id: c.id, draft: $event })"
                  />
                  <p-button type="submit" size="small" label="Correct it" />
                  <p-button type="button" size="small" [text]="true" label="Cancel" (onClick)="correcting.set(null)" />
                </form>
              </td>
            } @else {
              <td class="num">{{ p.date }}</td>
              <td>
                {{ p.kind }}
                @if (about(p); as words) {
                  <div class="quiet small">{{ words }}</div>
                }
              </td>
              <td class="right num">
                {{ text(p.amount, p.currency) }}
                @if (changed(p); as c) {
                  <div class="quiet small">{{ c }}</div>
                }
              </td>
              <td class="right">
                <p-button
                  size="small"
                  [text]="true"
                  icon="pi pi-pencil"
                  [ariaLabel]="'Correct the price of ' + p.date"
                  (onClick)="correcting.set({ id: p.id, draft: p })"
                />
                <p-button
                  size="small"
                  [text]="true"
                  icon="pi pi-times"
                  [ariaLabel]="'Remove the price of ' + p.date"
                  (onClick)="leaveOut(p)"
                />
              </td>
            }
          </tr>
        } @empty {
          <tr>
            <td colspan="4" class="quiet">No price noted; value is missing from the points.</td>
          </tr>
        }
      </tbody>
    </table>
    @if (prices().length > 1) {
      <sd-price-history [prices]="prices()" [currency]="currency()" />
    }
    @if (saving.problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
    <form class="inline" (ngSubmit)="save()" aria-label="Note a price">
      <sd-price-fields bare [detailed]="isDetailed()" [price]="draft()" (priceChange)="draft.set($event)" />
      <p-button
        type="button"
        size="small"
        [text]="true"
        [label]="isDetailed() ? 'Less' : 'Region, tax, shop …'"
        [attr.aria-expanded]="isDetailed()"
        (onClick)="isDetailed.set(!isDetailed())"
      />
      <p-button
        type="submit"
        size="small"
        severity="secondary"
        label="Note price"
        [disabled]="draft().amount === null"
      />
    </form>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .narrow {
      max-width: 640px;
    }
    .inline {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: start;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnitPrices {
  readonly unit = input.required<string>();
  readonly prices = input.required<readonly Price[]>();
  /** That the rules count; null where there are none. */
  readonly currency = input<string | null>(null);

  private readonly data = inject(CatalogueData);
  private readonly corrections = inject(CorrectionData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();
  protected readonly draft = signal(emptyPrice());
  protected readonly correcting = signal<{ readonly id: string; readonly draft: PriceDraft } | null>(null);
  protected readonly isDetailed = signal(false);
  protected readonly text = formatPrice;
  /** Where it holds, with or without tax, who asks it, and what was noted. */
  protected readonly about = (price: Price): string => [whereWords(price), price.note].filter(Boolean).join(' · ');

  /** What it came to in the currency that the rules count. */
  protected changed({ also }: Price): string {
    const currency = this.currency();
    const changed = currency === null ? undefined : also?.[currency];
    return changed && currency ? `= ${formatPrice(changed.amount, currency)}, rate of ${changed.rateOn}` : '';
  }

  protected save(): void {
    const { amount } = this.draft();
    if (amount === null || this.refusals.stop()) return;
    this.saving.run(this.data.notePrice(this.unit(), notedPrice(this.draft(), amount)), () =>
      this.draft.update((d) => ({ ...d, amount: null, note: '' })),
    );
  }

  /** What Enter has just confirmed in a field is in the draft, not yet in the template. */
  protected saveCorrection(): void {
    const correcting = this.correcting();
    const amount = correcting?.draft.amount ?? null;
    if (!correcting || amount === null || this.refusals.stop()) return;
    const { id, draft } = correcting;
    const { kind: priceKind, tax = null, region = '', shop = '', note = '', ...price } = notedPrice(draft, amount);
    const change = { kind: 'price', price: id, ...price, priceKind, tax, region, shop, note } as const;
    this.saving.run(this.corrections.correct(change), () => this.correcting.set(null));
  }

  /** Noted as a correction: the list of corrections has its way back. */
  protected leaveOut({ id }: Price): void {
    this.saving.run(this.corrections.correct({ kind: 'price-left-out', price: id, isOut: true }));
  }
}
