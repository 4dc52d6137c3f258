import type { Changed, ExchangeRates } from './exchange-rates';
import { pointsOnCurve } from './points-curve';
import { PRICE_KINDS, type PriceCriterion, type PriceKind, type TaxWord } from './rubric';

/** A price on a day. */
export interface DatedPrice {
  readonly amount: number;
  /** ISO 4217 code. */
  readonly currency: string;
  readonly kind: PriceKind;
  /** The day it held, ISO 8601. */
  readonly date: string;
  /** Where it holds, and whether the tax there is in it; missing where nobody has noted it. */
  readonly region?: string;
  readonly tax?: TaxWord;
  /** What kind of shop asks it. */
  readonly shop?: string;
  /** What it came to in other currencies on that day, where there were rates. */
  readonly also?: Readonly<Record<string, Changed>>;
}

/** Something without which a unit cannot be used. */
export interface NeededPart {
  readonly name: string;
  /** Uses that it is needed for; none: every use. */
  readonly uses: readonly string[];
  /** Of a part of the catalogue its own prices; of one that was typed the one that was typed with it. */
  readonly prices: readonly DatedPrice[];
  /** Whether its one price was typed with it: it counts whatever its kind. */
  readonly isTyped: boolean;
}

/** What is paid for what. */
export interface BillLine {
  readonly name: string;
  readonly amount: number;
  /** Which price that is. */
  readonly why: string;
}

/** What a price rule needs to know of a unit. */
export interface PricedFacts {
  /** All that is known, any order. */
  readonly prices: readonly DatedPrice[];
  readonly needs?: readonly NeededPart[];
  /** Day of its first test, ISO 8601; null before that. */
  readonly reviewedOn?: string | null;
}

/** What the rule made of the prices. */
export type PriceVerdict =
  | {
      readonly points: number;
      /** Of the unit itself. */
      readonly price: DatedPrice;
      /** What is paid in all, in the currency of the rule: the unit, and its parts where the rule counts them. */
      readonly total: number;
      /** A line for each part; none where the unit alone is paid. */
      readonly parts: readonly BillLine[];
      readonly overLimit: boolean;
      readonly why: string;
    }
  | { readonly points: null; readonly why: string };

/** Prices noted within so many days of the newest one are of one time. Common practice, no source. */
const ONE_TIME_DAYS = 90;

/**
 * Points for value: the price that counts, by the curve; above the limit less the penalty, unless a sale price that is
 * not older stands at or below the limit (common practice, no source). What counts is the first kind that there is, and
 * of it the latest, the one at the first test, or the cheapest of those that are of one time with the newest. Parts are
 * added by the same rule; parts of parts are not followed.
 *
 * @param unit - what is known of its prices
 * @param rule - the criterion
 */
export function pricePoints(unit: PricedFacts, rule: PriceCriterion): PriceVerdict {
  const { prices, needs = [], reviewedOn = null } = unit;
  const own = countedPrice(prices, rule, reviewedOn);
  if ('why' in own) return { points: null, why: own.why };
  const parts: BillLine[] = [];
  for (const part of rule.parts ? needs.filter((n) => isNeededFor(n, rule.parts?.use ?? null)) : []) {
    const found = countedPrice(part.prices, part.isTyped ? { ...rule, basis: PRICE_KINDS, moment: 'latest' } : rule, reviewedOn); // prettier-ignore
    if ('why' in found) return { points: null, why: `not counted: it needs ${part.name}, and of that ${found.why}` };
    parts.push({ name: part.name, amount: found.price.amount, why: describe(found.price) });
  }
  const basis = own.price;
  const total = cents(parts.reduce((sum, part) => sum + part.amount, basis.amount));
  const bill = parts.length === 0 ? '' : `${parts.map((p) => ` + ${p.name} ${p.amount}`).join('')} = ${total} ${rule.currency}`; // prettier-ignore
  const why = `${describe(basis)}${bill}`;
  const base = pointsOnCurve(rule.curve, total);
  const { limit } = rule;
  const counted = { price: basis, total, parts };
  if (!limit || total <= limit.amount) return { ...counted, points: base, overLimit: false, why };
  const sale = latest(own.usable.filter((p) => p.kind === 'sale' && p.date >= basis.date));
  if (sale && cents(total - basis.amount + sale.amount) <= limit.amount)
    return {
      ...counted,
      points: base,
      overLimit: false,
      why: `${why}; over the limit, given back by ${describe(sale)}`,
    };
  return {
    ...counted,
    points: Math.max(0, base - limit.penalty),
    overLimit: true,
    why: `${why}; over the limit of ${limit.amount} ${rule.currency}: −${limit.penalty}`,
  };
}

const cents = (amount: number): number => Math.round(100 * amount) / 100;

/** Parts of every use, and of the one that is meant; where none is meant, those of every use alone. */
const isNeededFor = ({ uses }: NeededPart, use: string | null): boolean =>
  uses.length === 0 || (use !== null && uses.includes(use));

type Found = { readonly price: CountedPrice; readonly usable: readonly CountedPrice[] } | { readonly why: string };

/** The price that counts, or why there is none. */
function countedPrice(
  prices: readonly DatedPrice[],
  { currency, basis, moment = 'latest' }: Pick<PriceCriterion, 'currency' | 'basis' | 'moment'>,
  reviewedOn: string | null,
): Found {
  const usable = prices.flatMap((p) => inCurrency(p, currency) ?? []);
  if (usable.length === 0) {
    const others = [...new Set(prices.map((p) => p.currency))];
    return {
      why:
        others.length > 0
          ? `not counted: price known only in ${others.join(', ')}, and no rate to ${currency} on its day or before`
          : 'no price noted',
    };
  }
  if (moment === 'at-review' && reviewedOn === null) return { why: 'not tested yet, so no price of that day' };
  const inTime = moment === 'at-review' ? usable.filter((p) => p.date <= (reviewedOn ?? '')) : usable;
  const price =
    moment === 'cheapest'
      ? cheapest(inTime.filter((p) => basis.includes(p.kind)))
      : (basis.map((kind) => latest(inTime.filter((p) => p.kind === kind))).find((p) => p !== null) ?? null);
  const until = moment === 'at-review' ? ` by ${reviewedOn}, the day of its first test` : '';
  return price ? { price, usable } : { why: `no ${basis.join(' or ')} price noted${until}` };
}

/** The lowest of the prices that are of one time with the newest. */
function cheapest(prices: readonly CountedPrice[]): CountedPrice | null {
  const newest = latest(prices);
  if (!newest) return null;
  const since = Date.parse(newest.date) - ONE_TIME_DAYS * 86_400_000;
  return prices.filter((p) => Date.parse(p.date) >= since).reduce((a, b) => (b.amount < a.amount ? b : a));
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

function describe(price: CountedPrice): string {
  const { kind, amount, currency, date, before } = price;
  const where = whereWords(price);
  const about = where === '' ? '' : ` (${where})`;
  return before === null
    ? `${kind} price ${amount} ${currency}, ${date}${about}`
    : `${kind} price ${before.text}, ${date}${about}: ${amount} ${currency} by the rate of ${before.rateOn}`;
}

/** Where a price holds, whether the tax there is in it, and who asks it; empty where nothing is noted. */
export const whereWords = ({ region, tax, shop }: Pick<DatedPrice, 'region' | 'tax' | 'shop'>): string =>
  [region, tax && `${tax} tax`, shop].filter(Boolean).join(', ');
