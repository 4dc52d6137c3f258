import type { UnitFacts } from './criterion-points';
import { priceFrontier, type PricedUnit } from './price-frontier';
import { rankUnits, type RankedUnit } from './rank';
import { recordsOf, type QuantityRecords } from './records';
import type { Rubric } from './rubric';

/** How the units of a kind stand to each other. */
export interface KindStanding {
  /** Best first; empty without rules. */
  readonly ranked: readonly RankedUnit[];
  /** The cheapest first; the price left out of the points. Empty without a price rule. */
  readonly frontier: readonly PricedUnit[];
  readonly records: readonly QuantityRecords[];
}

/**
 * Ranking, price frontier and records of one kind, from one set of facts.
 *
 * @param units - facts of each tested unit, ids unique
 * @param rubric - null where the kind has no rules: then there are records only
 */
export function kindStanding(units: readonly UnitFacts[], rubric: Rubric | null): KindStanding {
  const firstTested = new Map(units.flatMap((u) => (u.reviewedOn ? [[u.id, u.reviewedOn] as const] : [])));
  return {
    ranked: rubric ? rankUnits(units, rubric) : [],
    frontier: rubric ? priceFrontier(units, rubric) : [],
    records: recordsOf(units, firstTested),
  };
}
