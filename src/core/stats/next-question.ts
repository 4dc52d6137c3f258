/** A question that could be asked next. */
export interface Question {
  /** The unit in question first, then those it is heard with. */
  readonly items: readonly number[];
  /** Standard deviation of the unit's place that is expected after the answer. */
  readonly expectedSd: number;
}

/** What is known before the next question. */
export interface QuestionState {
  /** Drawn log worths of everything on the scale, one array each. */
  readonly draws: readonly Float64Array[];
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

/**
 * Pairs in the order of what they are expected to tell: for every opponent, each draw says how probable each answer
 * is; the places, weighted so, give the spread that would be left after it. The standard deviation of the place
 * stands for its 90 % interval, since 5 % and 95 % points of weighted draws are too coarse to tell hundreds of
 * opponents apart.
 *
 * @param state - draws of the scale
 * @param unit - the one to be placed
 * @param opponents - who may be asked about
 * @returns best question first
 */
export function nextPairs(state: QuestionState, unit: number, opponents: readonly number[]): Question[] {
  const places = placesOf(state.draws, unit);
  return opponents
    .filter((o) => o !== unit)
    .map((o) => ({ items: [unit, o], expectedSd: expectedSd(places, pairAnswers(state, unit, o)) }))
    .sort((a, b) => a.expectedSd - b.expectedSd);
}

/** Probability of each answer in each draw: the unit, the other, neither. */
function pairAnswers({ draws, tie }: QuestionState, unit: number, other: number): Float64Array[] {
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
 * @param state - draws of the scale
 * @param unit - the one to be placed
 * @param opponents - who may be asked about
 * @param size - of the heat, the unit included, 2–5
 * @returns null where there are not enough opponents
 */
export function nextHeat(state: QuestionState, unit: number, opponents: readonly number[], size = 4): Question | null {
  const pairs = nextPairs(state, unit, opponents);
  if (pairs.length < size - 1) return null;
  const near = pairs.slice(0, HEAT_CANDIDATES * 3).filter((_, i) => i < 4 || i % 4 === 0);
  const candidates = near.slice(0, HEAT_CANDIDATES).map((q) => q.items[1]);
  for (const q of pairs)
    if (candidates.length < size - 1 && !candidates.includes(q.items[1])) candidates.push(q.items[1]);
  const places = placesOf(state.draws, unit);
  let best: Question | null = null;
  for (const set of subsets(candidates, size - 1)) {
    const items = [unit, ...set];
    const sd = expectedSd(places, placeAnswers(state, items));
    if (!best || sd < best.expectedSd) best = { items, expectedSd: sd };
  }
  return best;
}

/** Probability of each order of a heat, in each draw. */
function placeAnswers({ draws }: QuestionState, items: readonly number[]): Float64Array[] {
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
