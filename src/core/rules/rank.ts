import type { UnitFacts } from './criterion-points';
import { RankingMemory, type RankOptions } from './ranking-memory';
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
  const memory = new RankingMemory();
  const standings = memory.rank(units, rubric, options);
  return Array.from(standings.order, (u, at) => {
    const { id } = units[u];
    const row = memory.pointsOf(id);
    return {
      id,
      place: at + 1,
      stratum: standings.stratum[at],
      composite: standings.composite[at],
      sd: standings.sd[at],
      composite90: [standings.composite5[at], standings.composite95[at]],
      rank90: [standings.rank5[at], standings.rank95[at]],
      expectedRank: standings.expectedRank[at],
      beatsNext: at + 1 < units.length ? standings.beatsNext[at] : null,
      missing: rubric.criteria.filter((_, c) => row[c].points === null).map((c) => c.id),
      points: Object.fromEntries(
        rubric.criteria.map((criterion, c) => {
          const { points, why } = row[c];
          return [criterion.id, { points, why, assumed: points === null ? standings.assumed[c] : null }];
        }),
      ),
    };
  });
}
