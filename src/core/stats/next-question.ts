import type { WorthPosterior } from './worth-posterior';

/** A question that could be asked next. */
export interface Question {
  /** The unit in question first, then those it is heard with. */
  readonly items: readonly number[];
  /** Standard deviation of the unit's place that is expected after the answer. */
  readonly expectedSd: number;
  /** By how much it is expected to lower the variance of the unit's log worth, or of its distance from the border. */
  readonly gain: number;
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
 * By how much one answer is expected to lower the variance of the unit's log worth, or of its distance from a border
 * that is in question: the information of the answer,
 * averaged over what is not known of the difference, through the covariance. The narrower the log worth, the narrower
 * the interval of the place, whoever was asked about; reweighted draws of the places themselves are too coarse to tell
 * hundreds of opponents apart (tried: a sixth more questions).
 */
function expectedGain(
  { logWorth, posterior, tie }: QuestionState,
  unit: number,
  other: number,
  border: readonly number[],
): number {
  const { covariance, items: n } = posterior;
  const at = (i: number, j: number): number => covariance[i * n + j];
  const variance = at(unit, unit) + at(other, other) - 2 * at(unit, other);
  // What the answer says of the unit's distance from the border, not of its own worth alone.
  const ofBorder = border.reduce((s, b) => s + (at(b, unit) - at(b, other)) / border.length, 0);
  const shared = at(unit, unit) - at(unit, other) - ofBorder;
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
 * @param border - things whose mean worth is the border in question; none for the worth itself
 * @returns best question first
 */
export function nextPairs(
  state: QuestionState,
  unit: number,
  opponents: readonly number[],
  border: readonly number[] = [],
): { readonly opponent: number; readonly gain: number }[] {
  return opponents
    .filter((o) => o !== unit)
    .map((opponent) => ({ opponent, gain: expectedGain(state, unit, opponent, border) }))
    .sort((a, b) => b.gain - a.gain);
}

/**
 * The pair that tells most, with the spread of the place that is expected after it.
 *
 * @param state - of the scale
 * @param unit - the one to be placed
 * @param opponents - who may be asked about
 * @param border - see {@link nextPairs}
 * @returns null without opponents
 */
export function nextPair(
  state: QuestionState,
  unit: number,
  opponents: readonly number[],
  border: readonly number[] = [],
): Question | null {
  const best = nextPairs(state, unit, opponents, border).at(0);
  if (best === undefined) return null;
  const places = placesOf(state.posterior.draws, unit);
  const { opponent, gain } = best;
  return { items: [unit, opponent], gain, expectedSd: expectedSd(places, pairAnswers(state, unit, opponent)) };
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

/** What an order of four tells of one pair in it, all alike, re a pair asked by itself: (1/16 + 3/4·1/9 + 1/2·1/4)/(1/4). */
const HEAT_PAIR = (1 / 16 + 1 / 12 + 1 / 8) * 4;

/** So many of the best opponents are tried in heats: all sets of three among them are looked at. */
const HEAT_CANDIDATES = 9;

/**
 * The best heat: the unit with a few opponents, all to be put in order. Tried are all sets among the opponents whose
 * pairs tell most, and among them some that lie apart, since three neighbours tell less than three that straddle.
 *
 * @param state - of the scale
 * @param unit - the one to be placed
 * @param opponents - who may be asked about
 * @param border - see {@link nextPairs}
 * @param size - of the heat, the unit included, 2–5
 * @returns null where there are not enough opponents
 */
export function nextHeat(
  state: QuestionState,
  unit: number,
  opponents: readonly number[],
  border: readonly number[] = [],
  size = 4,
): Question | null {
  const ranked = nextPairs(state, unit, opponents, border);
  const pairs = ranked.map((p) => p.opponent);
  const gains = new Map(ranked.map((p) => [p.opponent, p.gain]));
  const variance = distanceVariance(state.posterior, unit, border);
  if (pairs.length < size - 1) return null;
  const candidates = pairs.slice(0, HEAT_CANDIDATES * 3).filter((_, i) => i < 4 || i % 4 === 0).slice(0, HEAT_CANDIDATES); // prettier-ignore
  const places = placesOf(state.posterior.draws, unit);
  let best: Question | null = null;
  for (const set of subsets(candidates, size - 1)) {
    const items = [unit, ...set];
    const sd = expectedSd(places, placeAnswers(state, items));

    if (!best || sd < best.expectedSd) best = { items, expectedSd: sd, gain: heatGain(variance, set, gains) };
  }
  return best;
}

/** What the pairs of a heat tell together: their precisions add up. */
function heatGain(variance: number, set: readonly number[], gains: ReadonlyMap<number, number>): number {
  const precision = set.reduce((sum, o) => sum + 1 / (variance - Math.min(gains.get(o) ?? 0, 0.999 * variance)) - 1 / variance, 0); // prettier-ignore
  return variance - 1 / (1 / variance + HEAT_PAIR * precision);
}

/**
 * Variance of a unit's distance from a border.
 *
 * @param posterior - of the scale
 * @param unit - index
 * @param border - things whose mean worth it is; none for the worth itself
 */
export function distanceVariance(posterior: WorthPosterior, unit: number, border: readonly number[]): number {
  const { covariance, items: n } = posterior;
  const at = (i: number, j: number): number => covariance[i * n + j];
  const mean = (of: (b: number) => number): number =>
    border.reduce((s, b) => s + of(b), 0) / Math.max(1, border.length);
  return at(unit, unit) - 2 * mean((b) => at(unit, b)) + mean((b) => mean((c) => at(b, c)));
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
