import type { WorthPosterior } from './worth-posterior';

/** A question that could be asked next. */
export interface Question {
  /** The unit in question first, then those it is heard with. */
  readonly items: readonly number[];
  /** Standard deviation of the unit's place that is expected after the answer. */
  readonly expectedSd: number;
}

/** What is known before the next question. */
export interface QuestionState {
  readonly logWorth: Float64Array;
  readonly posterior: WorthPosterior;
  /** Davidson's ν where "neither" may be answered, else 0. */
  readonly tie: number;
}

/**
 * The unit's place in every draw (1 = best).
 *
 * @param draws - one array per thing
 * @param unit - index
 */
export function placesOf(draws: readonly Float64Array[], unit: number): Float64Array {
  const own = draws[unit];
  const places = new Float64Array(own.length).fill(1);
  draws.forEach((other, i) => {
    if (i !== unit) for (let d = 0; d < own.length; d++) if (other[d] > own[d]) places[d]++;
  });
  return places;
}

/** Nodes and weights of Gauss & Hermite for a standard normal, five points (Abramowitz & Stegun, table 25.10, scaled). */
const NORMAL_NODES = [
  [-2.8569700138728056, 0.011257411327720693],
  [-1.355626179974266, 0.22207592200561263],
  [0, 0.5333333333333333],
  [1.355626179974266, 0.22207592200561263],
  [2.8569700138728056, 0.011257411327720693],
] as const;

/**
 * By how much one answer is expected to lower the variance of the unit's log worth: the information of the answer,
 * averaged over what is not known of the difference, through the covariance. The narrower the log worth, the narrower
 * the interval of the place, whoever was asked about; reweighted draws of the places themselves are too coarse to tell
 * hundreds of opponents apart (tried: a sixth more questions).
 */
function expectedGain({ logWorth, posterior, tie }: QuestionState, unit: number, other: number): number {
  const { covariance, items: n } = posterior;
  const at = (i: number, j: number): number => covariance[i * n + j];
  const variance = at(unit, unit) + at(other, other) - 2 * at(unit, other);
  const shared = at(unit, unit) - at(unit, other);
  const spread = Math.sqrt(Math.max(0, variance));
  let information = 0;
  for (const [z, weight] of NORMAL_NODES) {
    const half = Math.exp((logWorth[unit] - logWorth[other] + z * spread) / 2);
    const total = half + 1 / half + tie;
    const expected = (half + tie / 2) / total;
    information += weight * (half / total + tie / total / 4 - expected ** 2);
  }
  return (information * shared * shared) / (1 + information * variance);
}

/**
 * Pairs in the order of what they are expected to tell of the unit.
 *
 * @param state - of the scale
 * @param unit - the one to be placed
 * @param opponents - who may be asked about
 * @returns best question first
 */
export function nextPairs(state: QuestionState, unit: number, opponents: readonly number[]): number[] {
  return opponents
    .filter((o) => o !== unit)
    .map((o) => ({ o, gain: expectedGain(state, unit, o) }))
    .sort((a, b) => b.gain - a.gain)
    .map(({ o }) => o);
}

/**
 * The pair that tells most, with the spread of the place that is expected after it.
 *
 * @param state - of the scale
 * @param unit - the one to be placed
 * @param opponents - who may be asked about
 * @returns null without opponents
 */
export function nextPair(state: QuestionState, unit: number, opponents: readonly number[]): Question | null {
  const other = nextPairs(state, unit, opponents).at(0);
  if (other === undefined) return null;
  const places = placesOf(state.posterior.draws, unit);
  return { items: [unit, other], expectedSd: expectedSd(places, pairAnswers(state, unit, other)) };
}

/** Probability of each answer in each draw: the unit, the other, neither. */
function pairAnswers({ posterior: { draws }, tie }: QuestionState, unit: number, other: number): Float64Array[] {
  const [own, their] = [draws[unit], draws[other]];
  const wins = new Float64Array(own.length);
  const losses = new Float64Array(own.length);
  for (let d = 0; d < own.length; d++) {
    const half = Math.exp((own[d] - their[d]) / 2);
    const total = half + 1 / half + tie;
    wins[d] = half / total;
    losses[d] = 1 / half / total;
  }
  return tie > 0 ? [wins, losses, wins.map((w, d) => Math.max(0, 1 - w - losses[d]))] : [wins, losses];
}

/** Root of the variance of the places that is expected to be left. */
function expectedSd(places: Float64Array, answers: readonly Float64Array[]): number {
  let variance = 0;
  for (const weights of answers) {
    let [w, wr, wrr] = [0, 0, 0];
    for (let d = 0; d < places.length; d++) {
      w += weights[d];
      wr += weights[d] * places[d];
      wrr += weights[d] * places[d] ** 2;
    }
    if (w > 0) variance += wrr - (wr * wr) / w;
  }
  return Math.sqrt(Math.max(0, variance / places.length));
}

/** So many of the best opponents are tried in heats: all sets of three among them are looked at. */
const HEAT_CANDIDATES = 9;

/**
 * The best heat: the unit with a few opponents, all to be put in order. Tried are all sets among the opponents whose
 * pairs tell most, and among them some that lie apart, since three neighbours tell less than three that straddle.
 *
 * @param state - of the scale
 * @param unit - the one to be placed
 * @param opponents - who may be asked about
 * @param size - of the heat, the unit included, 2–5
 * @returns null where there are not enough opponents
 */
export function nextHeat(state: QuestionState, unit: number, opponents: readonly number[], size = 4): Question | null {
  const pairs = nextPairs(state, unit, opponents);
  if (pairs.length < size - 1) return null;
  const candidates = pairs.slice(0, HEAT_CANDIDATES * 3).filter((_, i) => i < 4 || i % 4 === 0).slice(0, HEAT_CANDIDATES); // prettier-ignore
  const places = placesOf(state.posterior.draws, unit);
  let best: Question | null = null;
  for (const set of subsets(candidates, size - 1)) {
    const items = [unit, ...set];
    const sd = expectedSd(places, placeAnswers(state, items));
    if (!best || sd < best.expectedSd) best = { items, expectedSd: sd };
  }
  return best;
}

/** Probability of each order of a heat, in each draw. */
function placeAnswers({ posterior: { draws } }: QuestionState, items: readonly number[]): Float64Array[] {
  const length = draws[items[0]].length;
  const worths = items.map((i) => draws[i].map((x) => Math.exp(x)));
  return permutations(items.map((_, i) => i)).map((order) => {
    const out = new Float64Array(length).fill(1);
    for (let d = 0; d < length; d++) {
      let left = 0;
      for (const w of worths) left += w[d];
      for (const i of order.slice(0, -1)) {
        out[d] *= worths[i][d] / left;
        left -= worths[i][d];
      }
    }
    return out;
  });
}

function subsets(items: readonly number[], size: number): number[][] {
  if (size === 0) return [[]];
  return items.flatMap((first, i) => subsets(items.slice(i + 1), size - 1).map((rest) => [first, ...rest]));
}

function permutations(items: readonly number[]): number[][] {
  if (items.length <= 1) return [[...items]];
  return items.flatMap((first, i) =>
    permutations([...items.slice(0, i), ...items.slice(i + 1)]).map((r) => [first, ...r]),
  );
}
