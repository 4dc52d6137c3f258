import { placementOf, stratumBounds } from '../rules/placement';
import { AnswerTable } from '../stats/comparison-answers';
import { fitWorths, USUAL_PENALTY, type WorthFit } from '../stats/fit-worths';
import { nextPairs } from '../stats/next-question';
import { standardNormal } from '../stats/normal';
import { seededBits, uniform, type RandomBits } from '../stats/random';
import { worthPosterior, type WorthPosterior } from '../stats/worth-posterior';
import { worthScale } from '../stats/worth-scale';

// Placing runs with a known truth: a catalogue of 200, answers by Bradley and Terry's model, and the same questions as
// a person is asked. The tests of every day take a few of them, `npm run test:deep` as many as its bounds need.

/** Units that were heard before; the one to be placed is the last. */
export const KNOWN = 200;
/** A catalogue: spread of its true log worths, and how many pairs were answered before. */
interface Past {
  readonly spread: number;
  readonly pairs: number;
}
/** From telephones to studios: units drawn at random are told apart 9 times in 10. */
export const WIDE: Past = { spread: 3, pairs: 1500 };
/** Units of one class, and fewer answers: 5 of 6, as blind answers of practised listeners go. */
const NEAR: Past = { spread: 2, pairs: 600 };

interface Placing {
  readonly truth: Float64Array;
  readonly table: AnswerTable;
  readonly bounds: readonly number[];
  fit: WorthFit;
  posterior: WorthPosterior;
}

/** A catalogue of 200 with its answers, mostly between units that are near each other. */
export function catalogue({ spread, pairs }: Past, seed: string, own: number): Placing {
  const bits = seededBits(seed);
  const truth = Float64Array.from({ length: KNOWN + 1 }, () => spread * standardNormal(bits));
  truth[KNOWN] = own;
  const table = new AnswerTable(KNOWN + 1);
  while (table.pairA.length < pairs) {
    const [a, b] = [Math.floor(uniform(bits) * KNOWN), Math.floor(uniform(bits) * KNOWN)];
    if (a === b || uniform(bits) > Math.exp(-Math.abs(truth[a] - truth[b]) / 2)) continue;
    table.addPair({ a, b, outcome: answer(truth, a, b, bits), tiesAllowed: false, weight: 1 });
  }
  const { fit, posterior } = worthScale(table);
  return { truth, table, bounds: stratumBounds(fit.logWorth, posterior.draws, KNOWN, 0.9), fit, posterior };
}

const answer = (truth: Float64Array, a: number, b: number, bits: RandomBits): 0 | 1 =>
  uniform(bits) < 1 / (1 + Math.exp(truth[b] - truth[a])) ? 1 : 0;

export function ask(placing: Placing, opponent: number, bits: RandomBits): void {
  const outcome = answer(placing.truth, KNOWN, opponent, bits);
  placing.table.addPair({ a: KNOWN, b: opponent, outcome, tiesAllowed: false, weight: 1 });
  const fit = fitWorths(placing.table, USUAL_PENALTY, placing.fit.parameters, placing.posterior.covariance);
  placing.posterior = worthPosterior(fit);
  placing.fit = fit;
}

export const OPPONENTS = Array.from({ length: KNOWN }, (_, i) => i);
const width = (placing: Placing): number => {
  const [low, high] = placementOf(placing.posterior.draws, KNOWN, placing.bounds, 0.9).place90;
  return high - low;
};

/** Questions until the 90 % interval of the place is as narrow as asked for. */
function questionsUntil(
  placing: Placing,
  most: number,
  choose: (placing: Placing) => number,
  bits: RandomBits,
): number {
  for (let asked = 0; asked < 400; asked++) {
    if (width(placing) <= most) return asked;
    ask(placing, choose(placing), bits);
  }
  return 400;
}

export const stateOf = ({ fit, posterior }: Placing) => ({ logWorth: fit.logWorth, posterior, tie: fit.tie });
const best = (placing: Placing): number => nextPairs(stateOf(placing), KNOWN, OPPONENTS)[0].opponent;

/** Questions that well-chosen and random pairs need for the same interval: a fifth of the catalogue. */
export function questionsOf(runs: number): { chosen: number; random: number } {
  const totals = { chosen: 0, random: 0 };
  for (let run = 0; run < runs; run++) {
    const own = WIDE.spread * standardNormal(seededBits(`own ${run}`));
    const seed = `catalogue ${run}`;
    const bits = seededBits(`answers ${run}`);
    // A fifth of the catalogue: the others are not known much better themselves.
    totals.chosen += questionsUntil(catalogue(WIDE, seed, own), 40, best, bits);
    totals.random += questionsUntil(catalogue(WIDE, seed, own), 40, () => Math.floor(uniform(bits) * KNOWN), bits);
  }
  return totals;
}

/** Of so many units near each other, how many end in the stratum that is theirs. */
export function rightStrata(runs: number): number {
  let right = 0;
  for (let run = 0; run < runs; run++) {
    const own = NEAR.spread * standardNormal(seededBits(`own ${run}`));
    const placing = catalogue(NEAR, `catalogue ${run % 8}`, own);
    const bits = seededBits(`answers ${run}`);
    const standing = () => placementOf(placing.posterior.draws, KNOWN, placing.bounds, 0.9);
    for (let asked = 0; asked < 100 && !standing().isSettled; asked++) ask(placing, best(placing), bits);
    const above = placing.truth.subarray(0, KNOWN).filter((x) => x > own).length;
    const truth = placing.bounds.filter((bound) => bound <= above).length + 1;
    if (placing.bounds.length > 2 && standing().likeliest === truth) right++;
  }
  return right;
}
