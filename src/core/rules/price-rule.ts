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
  const usable = prices.filter((p) => p.currency === rule.currency);
  if (usable.length === 0) {
    const others = [...new Set(prices.map((p) => p.currency))];
    return {
      points: null,
      why:
        others.length > 0
          ? `price known only in ${others.join(', ')}; the rubric counts ${rule.currency}`
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

function latest(prices: readonly DatedPrice[]): DatedPrice | null {
  return prices.reduce<DatedPrice | null>((best, p) => (best && best.date >= p.date ? best : p), null);
}

const describe = (p: DatedPrice): string => `${p.kind} price ${p.amount} ${p.currency}, ${p.date}`;
