import { describe, expect, it } from 'vitest';
import { AnswerTable } from './comparison-answers';
import { fitWorths, NO_PENALTY, USUAL_PENALTY } from './fit-worths';
import { seededBits, uniform } from './random';
import { worthPosterior } from './worth-posterior';

const ITEMS = 40;
/** Forty things whose worths rise evenly, each compared with some others; answers drawn by the model (Bradley and Terry 1952). */
function catalogue(answers: number, items = ITEMS, hasTies = false): AnswerTable {
  const table = new AnswerTable(items);
  const bits = seededBits('catalogue');
  for (let i = 0; i < answers; i++) {
    const a = Math.floor(uniform(bits) * items);
    const b = Math.floor(uniform(bits) * items);
    const wins = uniform(bits) < 1 / (1 + Math.exp((b - a) / 10));
    const outcome = hasTies && i % 9 === 0 ? 0.5 : wins ? 1 : 0;
    table.addPair({ a, b, outcome, tiesAllowed: hasTies, weight: 1 });
  }
  return table;
}
const apart = (x: Float64Array, y: Float64Array): number => Math.max(...x.map((v, i) => Math.abs(v - y[i])));

describe('a fit of worths', () => {
  it('of one pair is the log odds, without a penalty; half to each side of zero', () => {
    const table = new AnswerTable(2);
    table.addPair({ a: 0, b: 1, outcome: 1, tiesAllowed: false, weight: 3 });
    table.addPair({ a: 0, b: 1, outcome: 0, tiesAllowed: false, weight: 1 });
    const fit = fitWorths(table, NO_PENALTY);
    // Maximum likelihood of a share of 3 in 4: ln 3.
    expect(fit.logWorth[0]).toBeCloseTo(Math.log(3) / 2, 6);
    expect(fit.logWorth[1]).toBeCloseTo(-Math.log(3) / 2, 6);
    expect(fit).toMatchObject({ isConverged: true, tie: 0 });
    expect(fit.covariates).toHaveLength(0);
  });

  it('has its mean at zero, and a gradient of nothing', () => {
    const fit = fitWorths(catalogue(600));
    expect(fit.isConverged).toBe(true);
    expect(fit.logWorth.reduce((s, x) => s + x, 0)).toBeCloseTo(0, 10);
    expect(Math.max(...fit.likelihood.gradient.map(Math.abs))).toBeLessThan(1e-6);
    // Newton's method: a handful of steps from nothing.
    expect(fit.iterations).toBeGreaterThan(2);
    expect(fit.iterations).toBeLessThan(12);
  });

  it('that begins at the solution takes one step, and comes out where it began', () => {
    const cold = fitWorths(catalogue(600));
    const warm = fitWorths(catalogue(600), USUAL_PENALTY, cold.parameters);
    expect(warm.iterations).toBe(1);
    expect(apart(warm.logWorth, cold.logWorth)).toBeLessThan(1e-6);
  });

  it('has its mean at zero from a beginning that has not, where only differences count', () => {
    const shifted = fitWorths(catalogue(600), NO_PENALTY, new Float64Array(ITEMS).fill(3));
    expect(shifted.logWorth.reduce((sum, x) => sum + x, 0)).toBeCloseTo(0, 9);
    expect(apart(shifted.logWorth, fitWorths(catalogue(600), NO_PENALTY).logWorth)).toBeLessThan(1e-5);
  });

  it('comes to an end where the answers have no maximum, far out', () => {
    const table = new AnswerTable(2);
    table.addPair({ a: 0, b: 1, outcome: 1, tiesAllowed: false, weight: 1 });
    const fit = fitWorths(table, NO_PENALTY);
    // One wins always: each step goes further, and what is left to gain falls below any that matters.
    expect(fit.logWorth[0] - fit.logWorth[1]).toBeGreaterThan(10);
    expect(fit.iterations).toBeLessThanOrEqual(60);
  });

  it('after one more answer is the same by the curvature of the fit before, in fewer steps', () => {
    const before = fitWorths(catalogue(600));
    const { covariance } = worthPosterior(before);
    const more = () => {
      const table = catalogue(600);
      table.addPair({ a: 3, b: 30, outcome: 1, tiesAllowed: false, weight: 1 });
      return table;
    };
    const cold = fitWorths(more());
    const plain = fitWorths(more(), USUAL_PENALTY, before.parameters);
    const short = fitWorths(more(), USUAL_PENALTY, before.parameters, covariance);
    expect(apart(short.logWorth, cold.logWorth)).toBeLessThan(1e-5);
    expect(apart(plain.logWorth, cold.logWorth)).toBeLessThan(1e-5);
    expect(plain.iterations).toBeLessThan(cold.iterations);
    expect(short.iterations).toBeLessThan(plain.iterations);
    expect(apart(before.logWorth, cold.logWorth)).toBeGreaterThan(1e-3);
  });

  it('takes no step that does not lead uphill: a covariance of something else does no harm', () => {
    const before = fitWorths(catalogue(300));
    const wrong = new Float64Array(ITEMS * ITEMS).fill(-50);
    const table = catalogue(600);
    const fit = fitWorths(table, USUAL_PENALTY, before.parameters, wrong);
    expect(fit.isConverged).toBe(true);
    expect(apart(fit.logWorth, fitWorths(catalogue(600)).logWorth)).toBeLessThan(1e-5);
  });

  it('still begins at the worths that were known where the first tie, or a new thing, changes what is fitted', () => {
    const before = fitWorths(catalogue(600));
    const tied = fitWorths(catalogue(600, ITEMS, true));
    const from = fitWorths(catalogue(600, ITEMS, true), USUAL_PENALTY, before.parameters);
    expect(tied.tie).toBeGreaterThan(0);
    expect(from.tie).toBeCloseTo(tied.tie, 5);
    expect(apart(from.logWorth, tied.logWorth)).toBeLessThan(1e-5);
    const wider = fitWorths(catalogue(600, ITEMS + 1), USUAL_PENALTY, before.parameters);
    const cold = fitWorths(catalogue(600, ITEMS + 1));
    expect(apart(wider.logWorth, cold.logWorth)).toBeLessThan(1e-5);
    expect(wider.iterations).toBeLessThan(cold.iterations);
  });

  it('says so where there is no maximum: what always wins has no worth that is best', () => {
    const table = new AnswerTable(2);
    table.addPair({ a: 0, b: 1, outcome: 1, tiesAllowed: false, weight: 5 });
    const fit = fitWorths(table, NO_PENALTY);
    expect(fit.logWorth[0]).toBeGreaterThan(5);
    expect(fitWorths(table).logWorth[0]).toBeLessThan(3);
  });
});
