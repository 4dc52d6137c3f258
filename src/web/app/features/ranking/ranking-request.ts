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

/** Weights by criterion. */
export type Weights = Readonly<Record<string, number>>;

/** The most that a criterion weighs here. */
export const MOST_WEIGHT = 8;

/** Weights in the address, "noise:4,value:0.5"; what is no criterion’s weight is left out, and null is none of them. */
export function readWeights(text: string | undefined): Weights | null {
  const weights = (text ?? '').split(',').flatMap((part) => {
    const [, id, value] = /^([a-z0-9-]+):(\d+(?:\.\d+)?)$/.exec(part) ?? [];
    return id !== undefined && Number(value) <= MOST_WEIGHT ? [[id, Number(value)] as const] : [];
  });
  return weights.length === 0 ? null : Object.fromEntries(weights);
}

/** The weights that differ from those of the rules, as they stand in the address; null where none does. */
export function weightsText(weights: Weights, given: Weights): string | null {
  const differing = Object.entries(given).filter(([id, value]) => id in weights && weights[id] !== value);
  return differing.length === 0 ? null : differing.map(([id]) => `${id}:${weights[id]}`).join(',');
}

/** Which price counts, as the address says; anything else is as the rules say. */
export const readBasis = (text: string | undefined): PriceBasis => PRICE_BASES.find((b) => b === text) ?? 'rules';

/** The same facts by rules that count another price. */
export function withBasis(inputs: RankingInputs, basis: PriceBasis, use: string | null): RankingInputs {
  const rubric = withPriceBasis(inputs.rubric, basis, use);
  return rubric === inputs.rubric ? inputs : { ...inputs, rubric };
}
