import { standardDeviation } from '../stats/moments';
import { selectInPlace } from '../stats/order-statistic';
import { catalogueOfPoints, criterionPoints, weightOf, type UnitFacts } from './criterion-points';
import { CompositeDrawer } from './draw-composites';
import { MOST_POINTS } from './points-curve';
import { percentIndex, rankDistribution } from '../stats/rank-distribution';
import { probabilityOfBeating, strataOf } from './strata';
import type { Rubric } from './rubric';

/** Points of one criterion in a ranking. */
export interface RankedPoints {
  /** Null: missing. */
  readonly points: number | null;
  readonly why: string;
  /** What stood in for it where it is missing: the catalogue's mean. */
  readonly assumed: number | null;
}

/** One unit's standing. */
export interface RankedUnit {
  readonly id: string;
  /** 1 = best. */
  readonly place: number;
  /** 1 = top stratum. */
  readonly stratum: number;
  /** Weighted mean of the points, 0…5; a missing criterion counts with the catalogue's mean. */
  readonly composite: number;
  readonly sd: number;
  /** 5 % and 95 % points of the composite. */
  readonly composite90: readonly [number, number];
  /** 5 % and 95 % points of the place. */
  readonly rank90: readonly [number, number];
  readonly expectedRank: number;
  /** Probability of beating the unit one place below; null for the last. */
  readonly beatsNext: number | null;
  readonly missing: readonly string[];
  readonly points: Readonly<Record<string, RankedPoints>>;
}

/** Settings of the Monte Carlo. */
export interface RankOptions {
  readonly weights?: Rubric['weights'];
  readonly draws?: number;
  readonly seed?: string;
}

/**
 * Ranks units by the weighted mean of their points, and finds by Monte Carlo (JCGM 101) how sure that is: in every
 * draw each figure, each point given by hand and each missing criterion is drawn anew within its uncertainty, and
 * the units are put in order. The draws of a unit depend only on the seed and its id, so a new unit does not
 * disturb the others. Equal composites keep the order of ids; equal draws count as half a win.
 *
 * @param units - facts of each unit, ids unique
 * @param rubric - the rules
 * @param options - other weights than the rubric's, number of draws (1,000; half of that beyond 1,000 units), seed
 * @returns best first
 */
export function rankUnits(units: readonly UnitFacts[], rubric: Rubric, options: RankOptions = {}): RankedUnit[] {
  const weights = options.weights ?? rubric.weights;
  const draws = options.draws ?? usualDraws(units.length);
  const seed = options.seed ?? 'sediment';
  const table = rubric.criteria.map((criterion) => units.map((unit) => criterionPoints(criterion, unit)));
  const catalogue = table.map((column) =>
    catalogueOfPoints(
      column.flatMap((c) => c.points ?? []),
      MOST_POINTS,
    ),
  );
  const shares = normalisedWeights(rubric, weights);

  const composites = units.map((_, u) =>
    table.reduce((sum, column, c) => sum + shares[c] * (column[u].points ?? catalogue[c].mean), 0),
  );
  const drawer = new CompositeDrawer(draws);
  const drawn = units.map((unit, u) =>
    drawer.draw(
      table.map((column, c) => ({ points: column[u], catalogue: catalogue[c], share: shares[c] })),
      `${seed}/${unit.id}`,
    ),
  );

  const order = units
    .map((_, u) => u)
    .sort((a, b) => composites[b] - composites[a] || compareIds(units[a].id, units[b].id));
  const ordered = order.map((u) => drawn[u]);
  const ranks = rankDistribution(ordered);
  const strata = strataOf(ordered, rubric.stratumProbability);
  return order.map((u, place) => {
    const reordered = drawn[u].slice();
    return {
      id: units[u].id,
      place: place + 1,
      stratum: strata[place],
      composite: composites[u],
      sd: standardDeviation(drawn[u]),
      composite90: [
        selectInPlace(reordered, percentIndex(draws, 0.05)),
        selectInPlace(reordered, percentIndex(draws, 0.95)),
      ],
      rank90: ranks[place].interval,
      expectedRank: ranks[place].mean,
      beatsNext: place + 1 < order.length ? probabilityOfBeating(ordered[place], ordered[place + 1]) : null,
      missing: rubric.criteria.filter((_, c) => table[c][u].points === null).map((c) => c.id),
      points: Object.fromEntries(
        rubric.criteria.map((criterion, c) => {
          const { points, why } = table[c][u];
          return [criterion.id, { points, why, assumed: points === null ? catalogue[c].mean : null }];
        }),
      ),
    };
  });
}

const compareIds = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/**
 * 1,000 draws put a standard error of 0.9 % on a probability of 90 %. In a large catalogue, where many more pairs are
 * looked at than anyone reads, 500 (1.3 %) keep the page quick.
 */
const usualDraws = (units: number): number => (units > 1000 ? 500 : 1000);

function normalisedWeights(rubric: Rubric, weights: Rubric['weights']): number[] {
  const raw = rubric.criteria.map((c) => Math.max(0, weightOf(weights, c)));
  const total = raw.reduce((s, w) => s + w, 0);
  // All weights at zero would divide by zero; then every criterion counts alike.
  return raw.map((w) => (total > 0 ? w / total : 1 / raw.length));
}
