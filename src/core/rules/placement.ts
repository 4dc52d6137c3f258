import { percentIndex } from '../stats/place-distribution';
import { placesOf } from '../stats/next-question';
import { probabilityOfBeating, strataOf } from './strata';

/** Where a unit settles among units that were heard before. */
export interface Placement {
  /** How many strata the others form. */
  readonly strata: number;
  /** Probability of each stratum, from the top. */
  readonly probabilities: readonly number[];
  /** 1 = top. */
  readonly likeliest: number;
  /** Whether the likeliest stratum is as probable as the rule asks. */
  readonly isSettled: boolean;
  /** 5 % and 95 % points of the place among all. */
  readonly place90: readonly [number, number];
  /** Probability of every place, from the first. */
  readonly placeShares: readonly number[];
}

/**
 * The strata of all others, as places: after how many of them each stratum but the last one ends. Places, not worths,
 * since these do not hang on how far the prior draws worths together.
 *
 * @param logWorth - of everything on the scale
 * @param draws - one array per thing
 * @param unit - is left out
 * @param probability - with which the first of a stratum beats the first of the next, e.g. 0.9
 * @returns rising counts, one fewer than there are strata
 */
export function stratumBounds(
  logWorth: ArrayLike<number>,
  draws: readonly Float64Array[],
  unit: number,
  probability: number,
): number[] {
  const others = Array.from({ length: logWorth.length }, (_, i) => i).filter((i) => i !== unit);
  others.sort((a, b) => logWorth[b] - logWorth[a]);
  const strata = strataOf(
    others.map((i) => draws[i]),
    probability,
    probabilityOfBeating,
  );
  return others.flatMap((_, i) => (i > 0 && strata[i] > strata[i - 1] ? [i] : []));
}

/**
 * In which stratum a unit settles, with what probability.
 *
 * @param draws - one array per thing on the scale
 * @param unit - index of the one in question
 * @param bounds - see {@link stratumBounds}; held while a unit is being placed, so that the goal does not move
 * @param probability - from which on it is settled
 */
export function placementOf(
  draws: readonly Float64Array[],
  unit: number,
  bounds: readonly number[],
  probability: number,
): Placement {
  const count = draws[unit].length;
  const tally = new Array<number>(bounds.length + 1).fill(0);
  const places = placesOf(draws, unit);
  for (const place of places) tally[bounds.filter((bound) => bound < place).length]++;
  const probabilities = tally.map((n) => n / count);
  const likeliest = probabilities.indexOf(Math.max(...probabilities)) + 1;
  const sorted = places.slice().sort();
  const placeShares = new Array<number>(draws.length).fill(0);
  for (const place of places) placeShares[place - 1] += 1 / count;
  return {
    strata: tally.length,
    probabilities,
    likeliest,
    isSettled: probabilities[likeliest - 1] >= probability,
    place90: [sorted[percentIndex(count, 0.05)], sorted[percentIndex(count, 0.95)]],
    placeShares,
  };
}
