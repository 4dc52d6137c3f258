import { PRICE_BASES, withPriceBasis, type PriceBasis } from '#core/rules/price-basis';
import { pricePoints } from '#core/rules/price-rule';
import { daySchema } from '#contracts/common';
import type { RankingInputs } from '#contracts/ranking';
import type { SpecimenRow } from '#contracts/specimen';
import { isOfClasses, type ClassFilter } from '../../data/class-filter';

/** What the ranking shows. */
export const RANKING_VIEWS = ['list', 'board', 'tables', 'records', 'price', 'moved'] as const;
export type RankingView = (typeof RANKING_VIEWS)[number];

/** Units that are ranked among each other, as the address names them: a link shows the same. */
export interface RankingFilter {
  /** A word of a field that divides the kind. */
  readonly classes: ClassFilter;
  /** Highest price, in the currency of the rubric; null: any, and units without one. */
  readonly upTo: number | null;
}

/** A price in the address; null for what is no number above zero. */
export function readUpTo(text: string | undefined): number | null {
  const amount = Number(text ?? '');
  return Number.isFinite(amount) && amount > 0 ? amount : null;
}

/** Facts of the units that a filter leaves; of several words of one field, one is enough. */
export function filterInputs(
  inputs: RankingInputs,
  rows: readonly SpecimenRow[],
  filter: RankingFilter,
): RankingInputs {
  if (filter.classes.length === 0 && filter.upTo === null) return inputs;
  const classes = new Map(rows.map((r) => [r.id, r.classes]));
  const rule = inputs.rubric.criteria.find((c) => c.kind === 'price');
  const units = inputs.units.filter((unit) => {
    const isIn = isOfClasses(classes.get(unit.id) ?? {}, filter.classes);
    if (!isIn || filter.upTo === null) return isIn;
    const verdict = rule ? pricePoints(unit, rule) : null;
    return verdict !== null && verdict.points !== null && verdict.total <= filter.upTo;
  });
  return { ...inputs, units };
}

/** A day of the address; null for what is none, and for days that have not come. */
export function readPastDay(text: string | undefined, today: string): string | null {
  const day = daySchema.safeParse(text ?? '').data ?? null;
  return day !== null && day < today ? day : null;
}

/** Which price counts, as the address says; anything else is as the rules say. */
export const readBasis = (text: string | undefined): PriceBasis => PRICE_BASES.find((b) => b === text) ?? 'rules';

/** The same facts by rules that count another price. */
export function withBasis(inputs: RankingInputs, basis: PriceBasis, use: string | null): RankingInputs {
  const rubric = withPriceBasis(inputs.rubric, basis, use);
  return rubric === inputs.rubric ? inputs : { ...inputs, rubric };
}
