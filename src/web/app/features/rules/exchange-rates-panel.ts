import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { BASE_CURRENCY, type ExchangeRate } from '#core/rules/exchange-rates';
import { RATE_SHEET, readRates } from '#core/text/read-rates';
import { CatalogueData } from '../../data/catalogue';
import { LOADING } from '../../data/loaded';
import { Saving } from '../../data/saving';
import { CurrencyField } from '../../ui/field/currency-field';
import { DateField } from '../../ui/field/date-field';
import { NumberField } from '../../ui/field/number-field';
import { Refusals } from '../../ui/field/refusals';
import { today } from '../../ui/format';
import { ProblemBox } from '../../ui/problem-box';

/** More than anybody mends in one go. */
const MOST_PROBLEMS = 20;

/** Of each currency the newest rate, and how many days there are. */
export function newestRates(rates: readonly ExchangeRate[]) {
  const byCurrency = new Map<string, { newest: ExchangeRate; days: number }>();
  for (const rate of rates) {
    const known = byCurrency.get(rate.currency);
    const isNewer = !known || rate.date >= known.newest.date;
    byCurrency.set(rate.currency, { newest: isNewer ? rate : known.newest, days: (known?.days ?? 0) + 1 });
  }
  return [...byCurrency.values()].sort((a, b) => (a.newest.currency < b.newest.currency ? -1 : 1));
}

/** What one euro came to on days: typed, or read from a file. */
@Component({
  selector: 'sd-exchange-rates-panel',
  imports: [Button, CurrencyField, DateField, FormsModule, NumberField, ProblemBox],
  template: `
    <h2>Exchange rates</h2>
    @if (saving.problem(); as p) {
      <sd-problem-box [problem]="p" />
    }
    <p class="small quiet">
      How many of a currency one {{ base }} is. A price in another currency counts by the rate of its day, or the
      nearest earlier one.
    </p>
    @if (rows().length > 0) {
      <table class="plain-table">
        <thead>
          <tr>
            <th class="head">Currency</th>
            <th class="head right">Newest rate</th>
            <th class="head">Of</th>
            <th class="head right">Days</th>
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.newest.currency) {
            <tr>
              <td>{{ row.newest.currency }}</td>
              <td class="num right">{{ row.newest.rate }}</td>
              <td class="num">{{ row.newest.date }}</td>
              <td class="num right">{{ row.days }}</td>
            </tr>
          }
        </tbody>
      </table>
    }
    <form class="fields" (ngSubmit)="save()" aria-label="Note a rate">
      <sd-date-field label="On" required [value]="date()" (valueChange)="date.set($event ?? date())" />
      <sd-currency-field label="Currency" [value]="currency()" (valueChange)="currency.set($event)" />
      <sd-number-field
        [label]="'One ' + base + ' is'"
        [sheet]="sheet"
        [value]="rate()"
        (valueChange)="rate.set($event)"
      />
      <div class="end">
        <p-button
          type="submit"
          size="small"
          severity="secondary"
          label="Note rate"
          [disabled]="rate() === null || currency() === ''"
        />
      </div>
    </form>
    <div class="actions">
      <p-button
        size="small"
        [text]="true"
        icon="pi pi-upload"
        label="Read a CSV: date, currency, rate"
        (onClick)="file.click()"
      />
      <input
        #file
        type="file"
        accept=".csv,text/csv,text/plain"
        hidden
        aria-label="Rates as CSV"
        (change)="read(file)"
      />
      @if (said()) {
        <span class="small" role="status">{{ said() }}</span>
      }
    </div>
    @if (problems().length > 0) {
      <div role="alert" class="small bad">
        Nothing of this file was taken in:
        <ul>
          @for (p of problems(); track $index) {
            <li>line {{ p.line }}, {{ p.field }}: {{ p.why }}</li>
          }
        </ul>
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .fields {
      --number-width: 88px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ExchangeRatesPanel {
  private readonly data = inject(CatalogueData);
  private readonly refusals = inject(Refusals);
  protected readonly saving = new Saving();
  protected readonly base = BASE_CURRENCY;
  protected readonly sheet = RATE_SHEET;
  private readonly loaded = toSignal(this.data.rates, { initialValue: LOADING });
  protected readonly rows = computed(() => newestRates(this.loaded().value ?? []));
  protected readonly date = signal(today());
  protected readonly currency = signal('');
  protected readonly rate = signal<number | null>(null);
  protected readonly said = signal('');
  protected readonly problems = signal<readonly { line: number; field: string; why: string }[]>([]);

  protected save(): void {
    const rate = this.rate();
    if (rate === null || this.currency() === '' || this.refusals.stop()) return;
    const one = { date: this.date(), currency: this.currency(), rate };
    this.saving.run(this.data.noteRates([one]), () => this.rate.set(null));
  }

  protected async read(field: HTMLInputElement): Promise<void> {
    const text = await field.files?.item(0)?.text();
    // The same file can be chosen again once it is mended.
    field.value = '';
    if (text === undefined) return;
    const { rates, problems } = readRates(text, today());
    this.said.set('');
    this.problems.set(problems.slice(0, MOST_PROBLEMS));
    if (problems.length > 0) return;
    if (rates.length === 0) this.said.set('There is no rate in this file.');
    else
      this.saving.run(this.data.noteRates(rates), () =>
        this.said.set(rates.length === 1 ? 'One rate was noted.' : `${rates.length} rates were noted.`),
      );
  }
}
