import type { Changed, ExchangeRates } from './exchange-rates';
import { pointsOnCurve } from './points-curve';
import type { PriceCriterion, PriceKind } from './rubric';

/** A price on a day. */
export interface DatedPrice {
  readonly amount: number;
  /** ISO 4217 code. */
  readonly currency: string;
  readonly kind: PriceKind;
  /** The day it held, ISO 8601. */
  readonly date: string;
  /** What it came to in other currencies on that day, where there were rates. */
  readonly also?: Readonly<Record<string, Changed>>;
}

/** What the rule made of the prices. */
export type PriceVerdict =
  | { readonly points: number; readonly price: DatedPrice; readonly overLimit: boolean; readonly why: string }
  | { readonly points: null; readonly why: string };

/**
 * Points for value: the latest price of the first kind that counts, by the curve; above the limit less the
 * penalty, unless a sale price that is not older stands at or below the limit (common practice, no source).
 *
 * @param prices - all that is known, any order
 * @param rule - the criterion
 */
export function pricePoints(prices: readonly DatedPrice[], rule: PriceCriterion): PriceVerdict {
  const usable = prices.flatMap((p) => inCurrency(p, rule.currency) ?? []);
  if (usable.length === 0) {
    const others = [...new Set(prices.map((p) => p.currency))];
    return {
      points: null,
      why:
        others.length > 0
          ? `not counted: price known only in ${others.join(', ')}, and no rate to ${rule.currency} on its day or before`
          : 'no price noted',
    };
  }
  const basis = rule.basis.map((kind) => latest(usable.filter((p) => p.kind === kind))).find((p) => p !== null);
  if (!basis) return { points: null, why: `no ${rule.basis.join(' or ')} price noted` };
  const base = pointsOnCurve(rule.curve, basis.amount);
  const { limit } = rule;
  const isOver = limit !== null && basis.amount > limit.amount;
  if (!limit || !isOver) return { points: base, price: basis, overLimit: false, why: describe(basis) };
  const sale = latest(usable.filter((p) => p.kind === 'sale' && p.date >= basis.date));
  if (sale && sale.amount <= limit.amount) {
    return {
      points: base,
      price: basis,
      overLimit: false,
      why: `${describe(basis)}; over the limit, given back by ${describe(sale)}`,
    };
  }
  return {
    points: Math.max(0, base - limit.penalty),
    price: basis,
    overLimit: true,
    why: `${describe(basis)}; over the limit of ${limit.amount} ${rule.currency}: −${limit.penalty}`,
  };
}

/** A price as the rule counts it, with what it was before it was changed. */
interface CountedPrice extends DatedPrice {
  readonly before: { readonly text: string; readonly rateOn: string } | null;
}

function inCurrency(price: DatedPrice, currency: string): CountedPrice | null {
  if (price.currency === currency) return { ...price, before: null };
  const changed = price.also?.[currency];
  if (!changed) return null;
  const before = { text: `${price.amount} ${price.currency}`, rateOn: changed.rateOn };
  return { ...price, amount: changed.amount, currency, before };
}

/**
 * Prices with what each came to in every currency that there are rates of.
 *
 * @param prices - as they were noted
 * @param rates - of all days
 */
export function withRates(prices: readonly DatedPrice[], rates: ExchangeRates): DatedPrice[] {
  return prices.map((price) => {
    const also = Object.fromEntries(
      rates.currencies.flatMap((to) => {
        const changed = to === price.currency ? null : rates.change(price.amount, price.currency, to, price.date);
        return changed ? [[to, changed]] : [];
      }),
    );
    return Object.keys(also).length === 0 ? price : { ...price, also };
  });
}

function latest(prices: readonly CountedPrice[]): CountedPrice | null {
  return prices.reduce<CountedPrice | null>((best, p) => (best && best.date >= p.date ? best : p), null);
}

const describe = ({ kind, amount, currency, date, before }: CountedPrice): string =>
  before === null
    ? `${kind} price ${amount} ${currency}, ${date}`
    : `${kind} price ${before.text}, ${date}: ${amount} ${currency} by the rate of ${before.rateOn}`;
