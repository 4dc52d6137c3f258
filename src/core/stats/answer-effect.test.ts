import { describe, expect, it } from 'vitest';
import { answerEffect, type AnswerWithCircumstance } from './answer-effect';

describe('what a circumstance does to answers', () => {
  // Two equal things, each heard first as often as second; what came first won 76 of 100. Worths then say nothing, and
  // the effect is that of one binomial share: log odds ln(76/24), its error 1/√(n·p·q), and twice the gain in log
  // likelihood 2·(76·ln 1.52 + 24·ln 0.48) = 28.41 (closed form; the prior on the effect moves the third figure).
  const first = (i: number): readonly [number, number] => (i % 2 === 0 ? [0, 1] : [1, 0]);
  const asPairs: AnswerWithCircumstance[] = Array.from({ length: 100 }, (_, i) => ({
    items: first(i),
    // Each came first in 38 of those that were won, and in 12 of the others.
    outcome: i < 76 ? 1 : 0,
    tiesAllowed: false,
    weight: 1,
    covariate: [1, 0],
  }));

  it('is the log odds of what came first, with error and likelihood ratio of one share', () => {
    const { estimate, se, p, answers } = answerEffect(2, asPairs);
    expect(answers).toBe(100);
    expect(Math.abs(estimate - Math.log(76 / 24))).toBeLessThan(0.01);
    expect(Math.abs(se - 1 / Math.sqrt(100 * 0.76 * 0.24))).toBeLessThan(0.003);
    // The tail of χ² with one degree of freedom beyond 28.41 is twice that of the normal distribution beyond 5.330: 9.8e-8.
    expect(Math.log10(p)).toBeGreaterThan(-7.1);
    expect(Math.log10(p)).toBeLessThan(-6.9);
  });

  it('counts a weight as so many answers', () => {
    const half = asPairs.map((a) => ({ ...a, weight: 0.5 }));
    const { estimate, se } = answerEffect(2, half);
    expect(Math.abs(estimate - Math.log(76 / 24))).toBeLessThan(0.02);
    expect(Math.abs(se - Math.SQRT2 / Math.sqrt(100 * 0.76 * 0.24))).toBeLessThan(0.006);
  });

  it('reads an order of two as the pair that it is', () => {
    const asOrders = asPairs.map(({ items, outcome, ...rest }) =>
      outcome === 1
        ? { ...rest, items, outcome: null }
        : { ...rest, items: [items[1], items[0]], outcome: null, covariate: [0, 1] },
    );
    const [pairs, orders] = [answerEffect(2, asPairs), answerEffect(2, asOrders)];
    expect(orders.estimate).toBeCloseTo(pairs.estimate, 8);
    expect(orders.se).toBeCloseTo(pairs.se, 8);
    expect(orders.p / pairs.p).toBeCloseTo(1, 6);
  });

  it('turns its sign with the circumstance, and takes what both have for nothing', () => {
    const turned = asPairs.map((a) => ({ ...a, covariate: [0, 1] }));
    expect(answerEffect(2, turned).estimate).toBeCloseTo(-answerEffect(2, asPairs).estimate, 8);
    const both = asPairs.map((a) => ({ ...a, covariate: [1, 1] }));
    const none = answerEffect(2, both);
    expect(Math.abs(none.estimate)).toBeLessThan(1e-9);
    expect(none.p).toBeGreaterThan(0.999);
  });
});
