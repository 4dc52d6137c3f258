import { normalQuantile } from '../stats/normal';
import { quantile } from '../stats/quantile';
import { placesOf } from '../stats/next-question';
import { placementOf } from './placement';
import { probabilityOfBeating } from './strata';

/** What a person wants to know of a new unit. */
export type PlacingGoal =
  /** In which stratum of the others it belongs. */
  | { readonly kind: 'stratum' }
  /** Whether it belongs to the better half of all. */
  | { readonly kind: 'half' }
  /** Whether it beats one of the others: the yardstick. */
  | { readonly kind: 'beats'; readonly than: number };

/** How far that is known. */
export interface GoalStanding {
  /** 1 = top stratum; 1 and 2 for the better and the other half; 1 and 2 for beats and does not. */
  readonly answer: number;
  /** Probability of that answer. */
  readonly probability: number;
  readonly isSettled: boolean;
  /** Things whose mean worth is the border in question. */
  readonly border: readonly number[];
  /** All borders that matter to the goal. */
  readonly borders: readonly (readonly number[])[];
}

/**
 * How far a goal is reached.
 *
 * @param logWorth - of everything on the scale
 * @param draws - one array per thing
 * @param unit - the one to be placed
 * @param goal - what is asked
 * @param bounds - of the strata of the others (see stratumBounds)
 * @param probability - from which on it is settled
 */
export function goalStanding(
  logWorth: ArrayLike<number>,
  draws: readonly Float64Array[],
  unit: number,
  goal: PlacingGoal,
  bounds: readonly number[],
  probability: number,
): GoalStanding {
  const others = Array.from({ length: draws.length }, (_, i) => i)
    .filter((i) => i !== unit)
    .sort((a, b) => logWorth[b] - logWorth[a]);
  const standing = (first: number, border: readonly number[]): GoalStanding => ({
    answer: first >= 0.5 ? 1 : 2,
    probability: Math.max(first, 1 - first),
    isSettled: Math.max(first, 1 - first) >= probability,
    border,
    borders: [border],
  });
  if (goal.kind === 'beats') return standing(probabilityOfBeating(draws[unit], draws[goal.than]), [goal.than]);
  /** The two things between which a border lies: after so many of the others. */
  const borderAfter = (count: number): number[] => others.slice(Math.max(0, count - 1), count + 1);
  const places = placesOf(draws, unit);
  const shareBefore = (count: number): number => places.reduce((s, p) => s + (p <= count ? 1 : 0), 0) / places.length;
  if (goal.kind === 'half') {
    const half = Math.ceil(others.length / 2);
    return standing(shareBefore(half), borderAfter(half));
  }
  const { probabilities, likeliest, isSettled } = placementOf(draws, unit, bounds, probability);
  // The border that is least sure decides what to ask next.
  const open = bounds.reduce<number | null>(
    (best, bound) =>
      best === null || Math.abs(shareBefore(bound) - 0.5) < Math.abs(shareBefore(best) - 0.5) ? bound : best,
    null,
  );
  return {
    answer: likeliest,
    probability: probabilities[likeliest - 1],
    isSettled,
    border: open === null ? [] : borderAfter(open),
    borders: bounds.map(borderAfter),
  };
}

/** Questions that are still to be expected. */
export interface ExpectedQuestions {
  /** Half of all cases need no more. */
  readonly median: number;
  /** Nine of ten need no more; null where that is beyond what anybody would ask. */
  readonly most: number | null;
}

/** Nobody answers more than this for one unit. */
export const MOST_QUESTIONS = 200;

/** Draws of the worth of a border. */
const borderDraws = (draws: readonly Float64Array[], border: readonly number[], d: number): number =>
  border.reduce((s, b) => s + draws[b][d], 0) / Math.max(1, border.length);

/**
 * How far a unit lies from the nearest of the borders that matter to a goal, draw by draw.
 *
 * @param draws - one array per thing
 * @param unit - the one to be placed
 * @param borders - all of them; of a stratum there may be two
 */
export function borderDistances(
  draws: readonly Float64Array[],
  unit: number,
  borders: readonly (readonly number[])[],
): Float64Array {
  return draws[unit].map((x, d) =>
    borders.reduce((least, border) => Math.min(least, Math.abs(x - borderDraws(draws, border, d))), Infinity),
  );
}

/**
 * How many more questions a goal needs: for every draw of where the unit may truly stand, as many as bring the
 * uncertainty of its distance to the border down to what tells them apart. It is known beforehand only as far as the
 * place is; a unit on the border is never settled.
 *
 * @param distances - of the unit from the nearest border, one per draw
 * @param variance - of its distance now
 * @param gain - by how much one question is expected to lower that
 * @param probability - at which it is settled
 */
export function expectedQuestions(
  distances: ArrayLike<number>,
  variance: number,
  gain: number,
  probability: number,
): ExpectedQuestions {
  if (!(gain > 0) || !(variance > 0)) return { median: 0, most: 0 };
  const perQuestion = 1 / Math.max(variance - gain, 1e-9) - 1 / variance;
  const z = normalQuantile(probability);
  const needed = Float64Array.from(distances, (d) =>
    Math.max(0, ((z / Math.max(1e-6, d)) ** 2 - 1 / variance) / perQuestion),
  );
  const [median, most] = [quantile(needed, 0.5), quantile(needed, 0.9)];
  return {
    median: Math.min(MOST_QUESTIONS, Math.ceil(median)),
    most: most > MOST_QUESTIONS ? null : Math.ceil(most),
  };
}
