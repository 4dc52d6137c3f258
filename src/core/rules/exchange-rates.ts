/** What one euro came to on a day. */
export interface ExchangeRate {
  /** ISO 8601. */
  readonly date: string;
  /** ISO 4217. */
  readonly currency: string;
  /** Units of the currency for one of {@link BASE_CURRENCY}, as central banks publish them. */
  readonly rate: number;
}

/** Currency that rates are told against; a rate between two others goes through it. */
export const BASE_CURRENCY = 'EUR';

/** An amount in another currency, with the days of the rates that it was changed by. */
export interface Changed {
  readonly amount: number;
  /** Of the rates that were used, the older one; the price's own day is never later. */
  readonly rateOn: string;
}

/** Prices have two decimals. */
const CENTS = 100;

/** Rates by currency and day. Of a day without a rate the nearest earlier one is used; there is none before the first. */
export class ExchangeRates {
  private readonly byCurrency = new Map<string, ExchangeRate[]>();

  /** @param rates - any order; of two of one day and currency the later in the list counts */
  constructor(rates: readonly ExchangeRate[]) {
    const newest = new Map(rates.map((r) => [`${r.currency} ${r.date}`, r]));
    for (const rate of newest.values())
      this.byCurrency.set(rate.currency, [...(this.byCurrency.get(rate.currency) ?? []), rate]);
    for (const list of this.byCurrency.values()) list.sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
  }

  /** Currencies that there are rates of, and the base. */
  get currencies(): readonly string[] {
    return this.byCurrency.size === 0 ? [] : [BASE_CURRENCY, ...this.byCurrency.keys()];
  }

  /**
   * Changes an amount by the rates of a day.
   *
   * @param amount - in `from`
   * @param from - ISO 4217
   * @param to - ISO 4217
   * @param day - on which the price held
   * @returns null where there is no rate on that day or before it
   *
   * @example
   *   new ExchangeRates([{ date: '2026-01-02', currency: 'USD', rate: 1.25 }]).change(100, 'USD', 'EUR', '2026-01-09'); // => { amount: 80, rateOn: '2026-01-02' }
   */
  change(amount: number, from: string, to: string, day: string): Changed | null {
    if (from === to) return { amount, rateOn: day };
    const [own, other] = [this.rateOn(from, day), this.rateOn(to, day)];
    if (!own || !other) return null;
    const rateOn = [own.date, other.date].reduce((a, b) => (b < a ? b : a));
    return { amount: Math.round((amount / own.rate) * other.rate * CENTS) / CENTS, rateOn };
  }

  private rateOn(currency: string, day: string): ExchangeRate | null {
    if (currency === BASE_CURRENCY) return { date: day, currency, rate: 1 };
    return this.byCurrency.get(currency)?.findLast((r) => r.date <= day) ?? null;
  }
}
