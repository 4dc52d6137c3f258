import { describe, expect, it } from 'vitest';
import { distanceVariance, nextHeat, nextPair, nextPairs, placesOf, type QuestionState } from './next-question';
import { standardNormal } from './normal';
import { seededBits } from './random';

/** Worths that are independent of each other, with these means and deviations. */
function state(means: readonly number[], sds: readonly number[], tie = 0, draws = 400): QuestionState {
  const n = means.length;
  const covariance = new Float64Array(n * n);
  sds.forEach((sd, i) => (covariance[i * n + i] = sd ** 2));
  const bits = seededBits('draws');
  const posterior = {
    items: n,
    covariance,
    draws: means.map((m, i) => Float64Array.from({ length: draws }, () => m + sds[i] * standardNormal(bits))),
  };
  return { logWorth: Float64Array.from(means), posterior: posterior, tie };
}

/** Expected fall of the variance of δ ~ N(mean, variance) by one answer, by integration over a fine grid (Bayes). */
function expectedFall(mean: number, variance: number, tie: number): number {
  const sd = Math.sqrt(variance);
  const grid = Array.from({ length: 2001 }, (_, i) => mean + ((i - 1000) / 1000) * 8 * sd);
  const prior = grid.map((x) => Math.exp(-((x - mean) ** 2) / (2 * variance)));
  const all = prior.reduce((s, p) => s + p, 0);
  const answers = [
    (x: number) => Math.exp(x / 2) / (Math.exp(x / 2) + Math.exp(-x / 2) + tie),
    (x: number) => Math.exp(-x / 2) / (Math.exp(x / 2) + Math.exp(-x / 2) + tie),
    (x: number) => tie / (Math.exp(x / 2) + Math.exp(-x / 2) + tie),
  ];
  let left = 0;
  for (const answer of answers) {
    let [w, wx, wxx] = [0, 0, 0];
    grid.forEach((x, i) => {
      const weight = (prior[i] / all) * answer(x);
      w += weight;
      wx += weight * x;
      wxx += weight * x * x;
    });
    if (w > 0) left += wxx - wx ** 2 / w;
  }
  return variance - left;
}

describe('places in draws', () => {
  it('count what stands above', () => {
    const draws = [[1, 5, 2], [2, 4, 2], [3, 6, 1]].map((d) => Float64Array.from(d)); // prettier-ignore
    expect([0, 1, 2].map((i) => [...placesOf(draws, i)])).toEqual([[3, 2, 1], [2, 3, 1], [1, 1, 3]]); // prettier-ignore
  });
});

describe('what a pair is expected to tell', () => {
  it.each([
    [0, 0.3, 0.4, 0],
    [1, 0.3, 0.2, 0],
    [2, 0.5, 0.5, 0],
    [0, 0.4, 0.3, 1],
    [1.5, 0.4, 0.3, 2],
  ])('as integration by Bayes says: worths %f apart, deviations %f and %f, ν %f', (apart, own, their, tie) => {
    const [{ gain }] = nextPairs(state([apart, 0], [own, their], tie), 0, [1]);
    // Of the fall of the variance of the difference, the unit takes its share squared.
    const variance = own ** 2 + their ** 2;
    const expected = (own ** 2 / variance) ** 2 * expectedFall(apart, variance, tie);
    expect(Math.abs(gain / expected - 1)).toBeLessThan(0.06);
  });

  it('is more of a neighbour than of one far away, and of a sure one than of an unsure one', () => {
    const [means, sds] = [[0, 3, 0.1, 0.1, 1], [0.5, 0.1, 0.6, 0.1, 0.1]]; // prettier-ignore
    const byBayes = (o: number): number => {
      const variance = sds[0] ** 2 + sds[o] ** 2;
      return (sds[0] ** 2 / variance) ** 2 * expectedFall(means[0] - means[o], variance, 0);
    };
    const order = nextPairs(state(means, sds), 0, [0, 1, 2, 3, 4]);
    expect(order.map((p) => p.opponent)).toEqual([1, 2, 3, 4].sort((x, y) => byBayes(y) - byBayes(x)));
    expect([order[0].opponent, order[3].opponent]).toEqual([3, 1]);
    expect(order.map((p) => p.gain)).toEqual([...order.map((p) => p.gain)].sort((a, b) => b - a));
  });

  it('of the distance from a border is told by the border, too', () => {
    const known = state([0, 0, 0.2], [0.3, 0.5, 0.2]);
    const alone = nextPairs(known, 0, [1])[0].gain;
    // θ0 − θ1 itself is asked about: all of its variance takes part.
    const variance = 0.3 ** 2 + 0.5 ** 2;
    expect(Math.abs(nextPairs(known, 0, [1], [1])[0].gain / expectedFall(0, variance, 0) - 1)).toBeLessThan(0.06);
    // A border of two: half of the other's worth is in it.
    const shared = 0.3 ** 2 + 0.5 ** 2 / 2;
    const half = (shared / variance) ** 2 * expectedFall(0, variance, 0);
    expect(Math.abs(nextPairs(known, 0, [1], [1, 2])[0].gain / half - 1)).toBeLessThan(0.06);
    expect(nextPairs(known, 0, [1], [2])[0].gain).toBeCloseTo(alone, 9);
  });

  it('knows how far from a border a unit is', () => {
    const { posterior } = state([0, 0, 0], [0.3, 0.5, 0.2]);
    posterior.covariance[1] = posterior.covariance[3] = 0.05;
    expect(distanceVariance(posterior, 0, [])).toBeCloseTo(0.09, 12);
    expect(distanceVariance(posterior, 0, [1])).toBeCloseTo(0.09 + 0.25 - 2 * 0.05, 12);
    expect(distanceVariance(posterior, 0, [1, 2])).toBeCloseTo(0.09 + (0.25 + 0.04) / 4 - 0.05, 12);
  });
});

describe('the next question', () => {
  /** Root of what is left of the variance of places, over answers that weigh the draws. */
  const left = (places: Float64Array, answers: readonly ((draw: number) => number)[]): number => {
    let variance = 0;
    for (const answer of answers) {
      const weights = Array.from(places, (_, d) => answer(d));
      const total = weights.reduce((s, w) => s + w, 0);
      const mean = weights.reduce((s, w, d) => s + w * places[d], 0) / total;
      variance += weights.reduce((s, w, d) => s + w * (places[d] - mean) ** 2, 0);
    }
    return Math.sqrt(variance / places.length);
  };
  const means = [0, 0.3, -0.5, 1, -1.5];
  const sds = [0.8, 0.2, 0.2, 0.2, 0.2];

  it.each([0, 1.2])('is the pair that tells most, with the scatter of the place that it leaves (ν %f)', (tie) => {
    const known = state(means, sds, tie);
    const found = nextPair(known, 0, [1, 2, 3, 4]);
    const [best] = nextPairs(known, 0, [1, 2, 3, 4]);
    expect(found).toMatchObject({ items: [0, best.opponent], gain: best.gain });
    const { draws } = known.posterior;
    const delta = (d: number): number => draws[0][d] - draws[best.opponent][d];
    const all = (d: number): number => Math.exp(delta(d) / 2) + Math.exp(-delta(d) / 2) + tie;
    const answers = [(d: number) => Math.exp(delta(d) / 2) / all(d), (d: number) => Math.exp(-delta(d) / 2) / all(d)];
    const expected = left(placesOf(draws, 0), tie > 0 ? [...answers, (d) => tie / all(d)] : answers);
    expect(found?.expectedSd).toBeCloseTo(expected, 9);
    expect(nextPair(known, 0, [0])).toBeNull();
  });

  it('in a heat is the set after which the place scatters least, of all orders that may be answered', () => {
    const known = state(means, sds);
    const { draws } = known.posterior;
    const places = placesOf(draws, 0);
    const orders = (items: readonly number[]): number[][] =>
      items.length === 0
        ? [[]]
        : items.flatMap((i) => orders(items.filter((o) => o !== i)).map((rest) => [i, ...rest]));
    // Each place of an order is won against all that are left (Plackett, Luce).
    const chance = (order: readonly number[]) => (d: number) =>
      order.reduce((p, item, i) => p * (1 / order.slice(i).reduce((s, o) => s + Math.exp(draws[o][d] - draws[item][d]), 0)), 1); // prettier-ignore
    const sets = [[1, 2], [1, 3], [1, 4], [2, 3], [2, 4], [3, 4]]; // prettier-ignore
    const byHand = sets.map((set) => ({ set, sd: left(places, orders([0, ...set]).map(chance)) }));
    const best = byHand.reduce((a, b) => (b.sd < a.sd ? b : a));
    const found = nextHeat(known, 0, [1, 2, 3, 4], [], 3);
    expect(found?.items[0]).toBe(0);
    expect([...(found?.items ?? [])].slice(1).sort()).toEqual(best.set);
    expect(found?.expectedSd).toBeCloseTo(best.sd, 9);
  });

  it('in a heat tells more than its best pair, and less than all of its pairs one after the other', () => {
    const known = state(means, sds);
    const heat = nextHeat(known, 0, [1, 2, 3, 4]);
    const gains = nextPairs(known, 0, heat?.items.slice(1) ?? []).map((p) => p.gain);
    expect(heat?.items).toHaveLength(4);
    expect(heat?.gain).toBeGreaterThan(gains[0]);
    expect(heat?.gain).toBeLessThan(0.64);
    // Of two things it is a pair, asked as an order: (1/16 + 1/12 + 1/8)/(1/4) of what a pair tells.
    const two = nextHeat(known, 0, [1], [], 2);
    const pair = nextPairs(known, 0, [1])[0].gain;
    const precision = 1 / (0.64 - pair) - 1 / 0.64;
    expect(two?.gain).toBeCloseTo(0.64 - 1 / (1 / 0.64 + (13 / 12) * precision), 9);
    expect([nextHeat(known, 0, [1, 2]), nextHeat(known, 0, [0, 1, 2])]).toEqual([null, null]);
  });

  it('in a heat looks among the best, and among some that lie apart', () => {
    // Forty opponents, in the order of what their pairs tell: the first four, then every fourth, nine in all.
    const known = state([0, ...Array.from({ length: 40 }, (_, i) => 0.05 * (i + 1))], [0.8, ...new Array<number>(40).fill(0.05)], 0, 40); // prettier-ignore
    const opponents = Array.from({ length: 40 }, (_, i) => i + 1);
    const ranked = nextPairs(known, 0, opponents).map((p) => p.opponent);
    const allowed = [0, 1, 2, 3, 4, 8, 12, 16, 20].map((i) => ranked[i]);
    for (const item of nextHeat(known, 0, opponents)?.items.slice(1) ?? [NaN]) expect(allowed).toContain(item);
  });
});
