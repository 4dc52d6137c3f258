import { describe, expect, it } from 'vitest';
import { withPriceBasis } from './price-basis';
import type { PriceCriterion, Rubric } from './rubric';

const price: PriceCriterion = { kind: 'price', id: 'value', name: 'Value', meaning: 'for the money', currency: 'EUR', basis: ['street'], curve: [[0, 5]], limit: null }; // prettier-ignore
const rubric = (change: Partial<PriceCriterion> = {}): Rubric => ({ id: 'r', version: 1, name: 'R', category: 'microphone', criteria: [{ ...price, ...change }], weights: { value: 1 }, stratumProbability: 0.9 }); // prettier-ignore
const rule = (of: Rubric): PriceCriterion => of.criteria[0] as PriceCriterion;

describe('another price than the rules count', () => {
  it('is none where the rules are asked for: the same object, so that nothing is ranked anew', () => {
    const saved = rubric();
    expect(withPriceBasis(saved, 'rules', null)).toBe(saved);
    expect(withPriceBasis(saved, 'rules', 'Desk')).toBe(saved);
  });

  it('is that of the first test, or the cheapest', () => {
    expect(rule(withPriceBasis(rubric(), 'at-review', 'Desk'))).toEqual({ ...price, moment: 'at-review' });
    expect(rule(withPriceBasis(rubric(), 'cheapest', null))).toEqual({ ...price, moment: 'cheapest' });
  });

  it('is the unit with what it needs for the use', () => {
    expect(rule(withPriceBasis(rubric(), 'to-use', 'Desk')).parts).toEqual({ use: 'Desk' });
    expect(rule(withPriceBasis(rubric(), 'to-use', null)).parts).toEqual({ use: null });
  });

  it('follows the use where the rules count parts anyway, unless they name one', () => {
    expect(rule(withPriceBasis(rubric({ parts: { use: null } }), 'rules', 'Desk')).parts).toEqual({ use: 'Desk' });
    expect(rule(withPriceBasis(rubric({ parts: { use: 'Street' } }), 'rules', 'Desk')).parts).toEqual({
      use: 'Street',
    });
  });
});
