import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { orderAgreement } from './order-agreement';
import { rankCorrelation } from './rank-correlation';

describe('two orders of the same things', () => {
  /**
   * Kendall, Rank Correlation Methods, table of the probability that S reaches a value (from memory): n = 4: S ≥ 6:
   * 0.042, S ≥ 4: 0.167, S ≥ 2: 0.375, S ≥ 0: 0.625; n = 5: S ≥ 10: 0.0083, S ≥ 8: 0.042, S ≥ 6: 0.117; n = 6: S ≥ 15:
   * 0.0014, S ≥ 11: 0.028. S is alike less reversed.
   */
  it.each([
    [[0, 1, 2, 3], 6, 0.042],
    [[1, 0, 2, 3], 4, 0.167],
    [[1, 0, 3, 2], 2, 0.375],
    [[2, 1, 0, 3], 0, 0.625],
    [[0, 1, 2, 3, 4], 10, 0.0083],
    [[0, 1, 2, 4, 3], 8, 0.042],
    [[1, 0, 2, 4, 3], 6, 0.117],
    [[0, 1, 2, 3, 4, 5], 15, 0.0014],
    [[1, 0, 2, 3, 5, 4], 11, 0.028],
  ])('%j: S is %i, as much by chance %f', (second, s, p) => {
    const found = orderAgreement(
      [...second].sort((a, b) => a - b),
      second,
    );
    expect(2 * found.alike - found.pairs).toBe(s);
    expect(found.p).toBeCloseTo(p, 3);
  });

  it('counts what going through every order counts', () => {
    const orders = permutations([0, 1, 2, 3, 4]);
    for (const second of orders.slice(0, 40)) {
      const own = orderAgreement([0, 1, 2, 3, 4], second);
      const asGood = orders.filter((o) => orderAgreement([0, 1, 2, 3, 4], o).alike >= own.alike).length;
      expect(own.p).toBeCloseTo(asGood / 120, 12);
    }
  });

  it('is the same from either side, full for itself, and goes with Spearman’s at both ends', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([0, 1, 2, 3, 4, 5, 6], { minLength: 7 }), (order) => {
        const base = [0, 1, 2, 3, 4, 5, 6];
        expect(orderAgreement(base, order)).toEqual(orderAgreement(order, base));
        expect(orderAgreement(order, order)).toEqual({ pairs: 21, alike: 21, p: 1 / 5040 });
        const turned = orderAgreement(order, [...order].reverse());
        expect([turned.alike, turned.p]).toEqual([0, 1]);
        expect(rankCorrelation(order, order)).toBeCloseTo(1, 12);
      }),
    );
  });

  it('refuses what are no two orders of the same things', () => {
    for (const [a, b] of [
      [[1], [1]],
      [
        [1, 2],
        [1, 3],
      ],
      [
        [1, 2],
        [1, 2, 3],
      ],
      [
        [1, 1],
        [1, 1],
      ],
    ])
      expect(() => orderAgreement(a, b)).toThrow(RangeError);
  });
});

function permutations(items: readonly number[]): number[][] {
  if (items.length === 0) return [[]];
  return items.flatMap((x, i) =>
    permutations([...items.slice(0, i), ...items.slice(i + 1)]).map((rest) => [x, ...rest]),
  );
}
