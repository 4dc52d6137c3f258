import { standardDeviation } from '../stats/moments';
import { catalogueOfPoints, criterionPoints, type CriterionPoints, type UnitFacts } from './criterion-points';
import { CompositeDrawer, type Contribution } from './draw-composites';
import { MOST_POINTS } from './points-curve';
import { normalisedWeights, usualDraws, type RankOptions } from './ranking-memory';
import type { Rubric } from './rubric';
import { probabilityOfBeating } from './strata';

/** What one criterion adds to the difference of two units. */
export interface CriterionShare {
  readonly criterion: string;
  /** Points of each; what stands in where they are missing is the catalogue's mean. */
  readonly first: SharePoints;
  readonly second: SharePoints;
  /** Weight of the criterion, all weights together being 1. */
  readonly share: number;
  /** What it adds to the difference of the totals, first less second, in points of 5. */
  readonly difference: number;
  /** Standard deviation of that, everything done again. */
  readonly sd: number;
}

/** Points with where they come from. */
export interface SharePoints {
  readonly points: number;
  readonly isAssumed: boolean;
  readonly why: string;
}

/** The smallest change of one weight that turns the order. */
export interface TurningWeight {
  readonly criterion: string;
  readonly from: number;
  readonly to: number;
}

/** The smallest change of one criterion's points that turns the order. */
export interface TurningPoints {
  readonly criterion: string;
  /** The unit whose points would have to change. */
  readonly unit: 'first' | 'second';
  /** The one that stands below gains, or the one that stands above loses. */
  readonly gains: boolean;
  /** By so many points. */
  readonly by: number;
}

/** Why one unit stands above another. */
export interface WhyAbove {
  /** Most telling first. */
  readonly shares: readonly CriterionShare[];
  /** Of the totals, first less second. */
  readonly difference: number;
  readonly sd: number;
  /** Probability that the first is better, by the draws of the ranking. */
  readonly probability: number;
  /** Null where no weight alone turns it. */
  readonly weight: TurningWeight | null;
  /** Null where no criterion alone turns it. */
  readonly points: TurningPoints | null;
}

/**
 * Why one unit stands above another: what each criterion adds to the difference of their totals (the shares add up to
 * it), how sure that is, and the least that would have to change for the order to turn.
 *
 * @param units - of the whole ranking: what is missing is drawn from them
 * @param rubric - the rules
 * @param first - id of the unit that stands above
 * @param second - id of the other one
 * @param options - as of the ranking
 * @throws RangeError where a unit is not among them
 */
export function whyAbove(
  units: readonly UnitFacts[],
  rubric: Rubric,
  first: string,
  second: string,
  options: RankOptions = {},
): WhyAbove {
  const weights = options.weights ?? rubric.weights;
  const draws = options.draws ?? usualDraws(units.length);
  const seed = options.seed ?? 'sediment';
  const shares = normalisedWeights(rubric, weights);
  const catalogue = rubric.criteria.map((c) =>
    catalogueOfPoints(
      units.flatMap((u) => criterionPoints(c, u).points ?? []),
      MOST_POINTS,
    ),
  );
  const [one, other] = [first, second].map((id) => {
    const unit = units.find((u) => u.id === id);
    if (!unit) throw new RangeError(`no unit ${id} in this ranking`);
    return rubric.criteria.map((c) => criterionPoints(c, unit));
  });
  const drawer = new CompositeDrawer(draws);
  const partOf = (points: CriterionPoints, c: number): Contribution => ({ points, catalogue: catalogue[c], share: shares[c] }); // prettier-ignore
  // The same seeds as the ranking's: the same draws, the same probability.
  const drawnFirst = drawer.draw(one.map(partOf), `${seed}/${first}`);
  const drawnSecond = drawer.draw(other.map(partOf), `${seed}/${second}`);
  const assumed = (rows: typeof one, c: number): SharePoints => {
    const { points, why } = rows[c];
    return { points: points ?? catalogue[c].mean, isAssumed: points === null, why };
  };
  const perCriterion = rubric.criteria.map((criterion, c): CriterionShare => {
    const [a, b] = [assumed(one, c), assumed(other, c)];
    const alone = (rows: typeof one, id: string): Float64Array =>
      drawer.draw([partOf(rows[c], c)], `${seed}/${id}/${criterion.id}`);
    const spread = Math.hypot(standardDeviation(alone(one, first)), standardDeviation(alone(other, second)));
    return {
      criterion: criterion.id,
      first: a,
      second: b,
      share: shares[c],
      difference: shares[c] * (a.points - b.points),
      sd: spread,
    };
  });
  const difference = perCriterion.reduce((sum, s) => sum + s.difference, 0);
  return {
    shares: [...perCriterion].sort((a, b) => Math.abs(b.difference) - Math.abs(a.difference)),
    difference,
    sd: standardDeviation(drawnFirst.map((d, i) => d - drawnSecond[i])),
    probability: probabilityOfBeating(drawnFirst, drawnSecond),
    weight: turningWeight(perCriterion, weights),
    points: turningPoints(perCriterion, difference),
  };
}

/**
 * The weighted sum of differences of points is zero where the order turns; it is linear in every weight, so each has one
 * place at most where it does.
 */
function turningWeight(shares: readonly CriterionShare[], weights: Rubric['weights']): TurningWeight | null {
  const terms = shares.map((s) => ({
    criterion: s.criterion,
    from: Math.max(0, weights[s.criterion] ?? 0),
    gap: s.first.points - s.second.points,
  }));
  const total = terms.reduce((sum, t) => sum + t.from * t.gap, 0);
  return terms.reduce<TurningWeight | null>((best, { criterion, from, gap }) => {
    if (gap === 0) return best;
    const to = from - total / gap;
    if (to < 0 || (best && Math.abs(best.to - best.from) <= Math.abs(to - from))) return best;
    return { criterion, from, to };
  }, null);
}

function turningPoints(shares: readonly CriterionShare[], difference: number): TurningPoints | null {
  const [above, below] = difference >= 0 ? (['first', 'second'] as const) : (['second', 'first'] as const);
  return shares.reduce<TurningPoints | null>((best, criterion) => {
    if (criterion.share <= 0) return best;
    const by = Math.abs(difference) / criterion.share;
    if (best && best.by <= by) return best;
    if (criterion[below].points + by <= MOST_POINTS)
      return { criterion: criterion.criterion, unit: below, gains: true, by };
    return criterion[above].points - by >= 0 ? { criterion: criterion.criterion, unit: above, gains: false, by } : best;
  }, null);
}
