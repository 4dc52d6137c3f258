import { describe, expect, it } from 'vitest';
import { AnswerTable } from '../stats/comparison-answers';
import { fitWorths, USUAL_PENALTY, type WorthFit } from '../stats/fit-worths';
import { nextHeat, nextPairs, placesOf } from '../stats/next-question';
import { standardNormal } from '../stats/normal';
import { seededBits, uniform, type RandomBits } from '../stats/random';
import { toldByOrder, updatedPosterior, worthPosterior, type WorthPosterior } from '../stats/worth-posterior';
import { worthScale } from '../stats/worth-scale';
import { placementOf, stratumBounds } from './placement';

/** Units that were heard before; the one to be placed is the last. */
const KNOWN = 200;
/** Spread of the true log worths: the best of the catalogue beats its middle about 99 times in 100. */
const SPREAD = 2;

interface Placing {
  readonly truth: Float64Array;
  readonly table: AnswerTable;
  readonly bounds: readonly number[];
  fit: WorthFit;
  posterior: WorthPosterior;
}

/** A catalogue of 200 as ten years of pairs leave it: 3,000 answers, mostly between units that are near each other. */
function catalogue(seed: string, own: number): Placing {
  const bits = seededBits(seed);
  const truth = Float64Array.from({ length: KNOWN + 1 }, () => SPREAD * standardNormal(bits));
  truth[KNOWN] = own;
  const table = new AnswerTable(KNOWN + 1);
  while (table.pairA.length < 2500) {
    const [a, b] = [Math.floor(uniform(bits) * KNOWN), Math.floor(uniform(bits) * KNOWN)];
    if (a === b || uniform(bits) > Math.exp(-Math.abs(truth[a] - truth[b]) / 2)) continue;
    table.addPair({ a, b, outcome: answer(truth, a, b, bits), tiesAllowed: false, weight: 1 });
  }
  const { fit, posterior } = worthScale(table);
  return { truth, table, bounds: stratumBounds(fit.logWorth, posterior.draws, KNOWN, 0.9), fit, posterior };
}

const answer = (truth: Float64Array, a: number, b: number, bits: RandomBits): 0 | 1 =>
  uniform(bits) < 1 / (1 + Math.exp(truth[b] - truth[a])) ? 1 : 0;

function ask(placing: Placing, opponent: number, bits: RandomBits): void {
  const outcome = answer(placing.truth, KNOWN, opponent, bits);
  placing.table.addPair({ a: KNOWN, b: opponent, outcome, tiesAllowed: false, weight: 1 });
  const fit = fitWorths(placing.table, USUAL_PENALTY, placing.fit.parameters, placing.posterior.covariance);
  const told = toldByOrder(fit.logWorth, [KNOWN, opponent]);
  placing.posterior = updatedPosterior(placing.posterior, placing.fit.logWorth, fit.logWorth, told);
  placing.fit = fit;
}

const OPPONENTS = Array.from({ length: KNOWN }, (_, i) => i);
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

const best = (placing: Placing): number =>
  nextPairs({ draws: placing.posterior.draws, tie: 0 }, KNOWN, OPPONENTS)[0].items[1];

describe('placing the new one', () => {
  it('needs at most half the questions of random pairing, for the same interval', { timeout: 240_000 }, () => {
    const totals = [0, 0];
    for (let run = 0; run < 6; run++) {
      const own = SPREAD * standardNormal(seededBits(`own ${run}`));
      const seed = `catalogue ${run}`;
      const bits = seededBits(`answers ${run}`);
      // A third of the catalogue: from there on the new one is known about as well as the others are.
      totals[0] += questionsUntil(catalogue(seed, own), 60, best, bits);
      totals[1] += questionsUntil(catalogue(seed, own), 60, () => Math.floor(uniform(bits) * KNOWN), bits);
    }
    console.log(totals);
    expect(totals[0]).toBeLessThanOrEqual(totals[1] / 2);
  });
});
