import type { DatedPrice } from '#core/rules/price-rule';
import { PRICE_KINDS, type PriceKind } from '#core/rules/rubric';
import { stairsPath } from '../../ui/stairs-path';

/** A price in the currency of the picture. */
export interface ShownPrice {
  readonly day: string;
  readonly amount: number;
}

/** Prices of one kind over time, in pixels. */
export interface PriceLine {
  readonly kind: PriceKind;
  /** Whether a price holds until the next one: what was asked for once is a point. */
  readonly isLevel: boolean;
  readonly path: string;
  readonly dots: readonly (ShownPrice & { readonly x: number; readonly y: number })[];
}

/** Prices of a unit over time: a line for each kind, level until the next one was noted. */
export interface PriceHistoryPicture {
  readonly lines: readonly PriceLine[];
  readonly years: readonly { readonly at: number; readonly label: string }[];
  readonly amounts: readonly { readonly at: number; readonly label: string }[];
  /** Prices that could not be shown: there is no rate to the currency on their day or before. */
  readonly notShown: number;
}

const LEVEL: readonly PriceKind[] = ['list', 'street'];
const DAY_MS = 86_400_000;
/** Room above and below the outermost prices, as a share of their range. */
const MARGIN = 0.15;

/** The currency that most prices can be shown in: the one that the rules count, or that of the newest. */
export const pictureCurrency = (prices: readonly DatedPrice[], counted: string | null): string | null =>
  counted ?? prices.at(0)?.currency ?? null;

/**
 * @param prices - any order
 * @param currency - of the picture
 * @param until - where the time ends, ISO 8601
 * @param width - pixels
 * @param height - pixels
 * @returns null where no price can be shown
 */
export function priceHistory(
  prices: readonly DatedPrice[],
  currency: string,
  until: string,
  width: number,
  height: number,
): PriceHistoryPicture | null {
  const shown = prices.flatMap((p) => {
    const amount = p.currency === currency ? p.amount : p.also?.[currency]?.amount;
    return amount === undefined ? [] : [{ kind: p.kind, day: p.date, amount }];
  });
  if (shown.length === 0) return null;
  const days = shown.map((p) => Date.parse(p.day));
  const from = Math.min(...days);
  // A price may be noted for a day that has not come.
  const to = Math.max(Date.parse(until), ...days, from + DAY_MS);
  const amounts = shown.map((p) => p.amount);
  const [low, high] = [Math.min(...amounts), Math.max(...amounts)];
  const room = high > low ? MARGIN * (high - low) : Math.max(1, MARGIN * high);
  const x = (day: string): number => (width * (Date.parse(day) - from)) / (to - from);
  const y = (amount: number): number => height * (1 - (amount - low + room) / (high - low + 2 * room));
  const lines = PRICE_KINDS.flatMap((kind): PriceLine[] => {
    const own = shown.filter((p) => p.kind === kind).sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
    if (own.length === 0) return [];
    const dots = own.map(({ day, amount }) => ({ day, amount, x: x(day), y: y(amount) }));
    return [{ kind, isLevel: LEVEL.includes(kind), path: `${stairsPath(dots)}H${width}`, dots }];
  });
  const years: { at: number; label: string }[] = [];
  for (let year = new Date(from).getUTCFullYear() + 1; Date.parse(`${year}-01-01`) <= to; year++)
    years.push({ at: x(`${year}-01-01`), label: String(year) });
  return {
    lines,
    years,
    amounts: [...new Set([high, low])].map((amount) => ({ at: y(amount), label: String(amount) })),
    notShown: prices.length - shown.length,
  };
}
