import type { UnitFacts } from './criterion-points';
import { pricePoints } from './price-rule';
import { RankingMemory, type RankOptions } from './ranking-memory';
import type { Rubric } from './rubric';

/** A unit that stood at the top when it was tested, and that one that costs no more has beaten since. */
export interface BeatenFavourite {
  readonly id: string;
  /** Day of its first test. */
  readonly testedOn: string;
  readonly price: number;
  /** Of those that beat it and cost no more, the one with the most points. */
  readonly by: string;
  readonly byTestedOn: string;
  readonly byPrice: number;
  /** Probability that the other is better, the price left out. */
  readonly probability: number;
}

/** From this probability on it is said to be beaten; that of the upgrade advice. Common practice, no source. */
const CLEARLY = 0.9;

/**
 * Units that were in the top stratum among all that had been tested by the day of their own first test, and that a unit
 * tested later has beaten since that costs the same or less. It goes by the facts that count today, and leaves the price
 * out of the points, so that it does not count twice.
 *
 * @param units - facts of each unit, ids unique, with the day of the first test
 * @param rubric - the rules; without a price rule nothing is known to cost less
 * @param options - as of the ranking
 * @returns the latest favourite first
 */
export function beatenFavourites(
  units: readonly UnitFacts[],
  rubric: Rubric,
  options: RankOptions = {},
): BeatenFavourite[] {
  const rule = rubric.criteria.find((c) => c.kind === 'price');
  if (!rule) return [];
  const weights = { ...(options.weights ?? rubric.weights), [rule.id]: 0 };
  const memory = new RankingMemory();
  const { order, composite } = memory.rank(units, rubric, { ...options, weights });
  const points = new Map(Array.from(order, (u, at) => [units[u].id, composite[at]]));
  const known = units.flatMap((unit) => {
    const verdict = pricePoints(unit, rule);
    const testedOn = unit.reviewedOn ?? null;
    if (testedOn === null) return [];
    const price = verdict.points === null ? null : verdict.total;
    return [{ id: unit.id, testedOn, price, points: points.get(unit.id) ?? 0, drawn: memory.drawsOf(unit.id) }];
  });
  const better = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
    let count = 0;
    for (let d = 0; d < a.length; d++) count += a[d] > b[d] ? 1 : a[d] === b[d] ? 0.5 : 0;
    return count / a.length;
  };
  const byPoints = [...known].sort((a, b) => b.points - a.points);
  return byPoints
    .flatMap((unit): BeatenFavourite[] => {
      if (unit.price === null) return [];
      const best = byPoints.find((other) => other.testedOn <= unit.testedOn);
      // A new stratum begins where the first of the one above beats with this probability.
      const wasTop = best === unit || !best || better(best.drawn, unit.drawn) < rubric.stratumProbability;
      if (!wasTop) return [];
      const { price, points: own } = unit;
      for (const other of byPoints) {
        if (other.points <= own) break;
        if (other.testedOn <= unit.testedOn || other.price === null || other.price > price) continue;
        const probability = better(other.drawn, unit.drawn);
        if (probability >= CLEARLY)
          return [{ id: unit.id, testedOn: unit.testedOn, price, by: other.id, byTestedOn: other.testedOn, byPrice: other.price, probability }]; // prettier-ignore
      }
      return [];
    })
    .sort((a, b) => (a.testedOn < b.testedOn ? 1 : a.testedOn > b.testedOn ? -1 : 0));
}
