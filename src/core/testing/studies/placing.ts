import { goalStanding, borderDistances, expectedQuestions, type PlacingGoal } from '../../rules/placing-goal';
import { stratumBounds } from '../../rules/placement';
import { AnswerTable } from '../../stats/comparison-answers';
import { fitWorths, USUAL_PENALTY } from '../../stats/fit-worths';
import { distanceVariance, nextHeat, nextPair } from '../../stats/next-question';
import { standardNormal } from '../../stats/normal';
import { quantile } from '../../stats/quantile';
import { seededBits, uniform, type RandomBits } from '../../stats/random';
import { worthPosterior } from '../../stats/worth-posterior';

/** How many questions a goal took. */
export interface PlacingCount {
  readonly median: number;
  readonly mean: number;
  readonly ninety: number;
  /** Share that was settled within 120 questions, and share whose answer was right. */
  readonly settled: number;
  readonly right: number;
  /** Median of what was expected before the first question; null where nothing was expected. */
  readonly expected: number | null;
}

const SPREAD = 2;
const ANSWERS_EACH = 8;
const MOST = 120;

/** Places a new unit in a catalogue, again and again. */
export function placingStudy(
  known: number,
  how: 'pair' | 'heat' | 'random',
  kind: PlacingGoal['kind'],
  trials: number,
): PlacingCount {
  const counts: number[] = [];
  const expected: number[] = [];
  let [settled, right] = [0, 0];
  for (let t = 0; t < trials; t++) {
    const run = placeOnce(known, how, kind, `placing ${known} ${t}`);
    counts.push(run.asked);
    if (run.expected !== null) expected.push(run.expected);
    settled += run.isSettled ? 1 : 0;
    right += run.isRight ? 1 : 0;
  }
  return {
    median: quantile(counts, 0.5),
    mean: counts.reduce((s, c) => s + c, 0) / trials,
    ninety: quantile(counts, 0.9),
    settled: settled / trials,
    right: right / trials,
    expected: expected.length === 0 ? null : quantile(expected, 0.5),
  };
}

function placeOnce(known: number, how: 'pair' | 'heat' | 'random', kind: PlacingGoal['kind'], seed: string) {
  const bits = seededBits(seed);
  const truth = Float64Array.from({ length: known + 1 }, () => SPREAD * standardNormal(bits));
  const table = new AnswerTable(known + 1);
  const wins = (a: number, b: number): 0 | 1 => (uniform(bits) < 1 / (1 + Math.exp(truth[b] - truth[a])) ? 1 : 0);
  for (let k = 0; k < ANSWERS_EACH * known; k++) {
    const a = Math.floor(uniform(bits) * known);
    const b = (a + 1 + Math.floor(uniform(bits) * (known - 1))) % known;
    table.addPair({ a, b, outcome: wins(a, b), tiesAllowed: false, weight: 1 });
  }
  let fit = fitWorths(table, USUAL_PENALTY);
  let posterior = worthPosterior(fit);
  const bounds = stratumBounds(fit.logWorth, posterior.draws, known, 0.9);
  const goal: PlacingGoal = kind === 'beats' ? { kind, than: Math.floor(known / 3) } : { kind };
  const opponents = Array.from({ length: known }, (_, i) => i);
  const standingNow = () => goalStanding(fit.logWorth, posterior.draws, known, goal, bounds, 0.9);
  let standing = standingNow();
  let expected: number | null = null;
  let asked = 0;
  for (; asked < MOST && !standing.isSettled; asked++) {
    const state = { logWorth: fit.logWorth, posterior, tie: 0 };
    const question =
      how === 'random'
        ? { items: [known, Math.floor(uniform(bits) * known)], gain: 0 }
        : (how === 'heat' ? nextHeat : nextPair)(state, known, opponents, standing.border);
    if (!question) break;
    if (asked === 0 && how !== 'random')
      expected = expectedQuestions(borderDistances(posterior.draws, known, standing.borders), distanceVariance(posterior, known, standing.border), question.gain, 0.9).median; // prettier-ignore
    if (question.items.length > 2) table.addOrder({ items: ordered(question.items, truth, bits), weight: 1 });
    else {
      const [a, b] = question.items;
      table.addPair({ a, b, outcome: wins(a, b), tiesAllowed: false, weight: 1 });
    }
    fit = fitWorths(table, USUAL_PENALTY, fit.parameters, posterior.covariance);
    posterior = worthPosterior(fit);
    standing = standingNow();
  }
  const above = truth.subarray(0, known).filter((x) => x > truth[known]).length;
  const isRight =
    standing.answer ===
    (goal.kind === 'stratum'
      ? bounds.filter((bound) => bound <= above).length + 1
      : goal.kind === 'half'
        ? above < Math.ceil(known / 2)
          ? 1
          : 2
        : truth[known] > truth[goal.than]
          ? 1
          : 2);
  return { asked, expected, isSettled: standing.isSettled, isRight };
}

/** An order drawn by worths (Plackett & Luce). */
function ordered(items: readonly number[], truth: Float64Array, bits: RandomBits): number[] {
  const left = [...items];
  const order: number[] = [];
  while (left.length > 0) {
    const weights = left.map((i) => Math.exp(truth[i]));
    let at = uniform(bits) * weights.reduce((s, w) => s + w, 0);
    let k = 0;
    while (k < weights.length - 1 && at > weights[k]) at -= weights[k++];
    order.push(left[k]);
    left.splice(k, 1);
  }
  return order;
}
