import { describe, expect, it } from 'vitest';
import { bestAssociation } from './best-association';
import { SeededWords, seededBits, uniform } from './random';
import { shareInterval } from './share-interval';

describe('the interval of a share', () => {
  // Newcombe (1998), Statistics in Medicine 17, table I, method 3 (score without continuity correction), 95 %.
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('%i of %i: %f to %f', (hits, of, low, high) => {
    const [a, b] = shareInterval(hits, of, 0.95);
    expect([a.toFixed(4), b.toFixed(4)]).toEqual([low.toFixed(4), high.toFixed(4)]);
  });

  it('mirrors, narrows with more, and refuses what is no share', () => {
    const [a, b] = shareInterval(3, 10, 0.9);
    const [c, d] = shareInterval(7, 10, 0.9);
    expect([1 - d, 1 - c].map((x) => x.toFixed(12))).toEqual([a, b].map((x) => x.toFixed(12)));
    expect(shareInterval(30, 100, 0.9)[1]).toBeLessThan(b);
    expect(shareInterval(5, 5, 0.9)[1]).toBe(1);
    for (const [hits, of] of [[1, 0], [-1, 3], [4, 3]]) expect(() => shareInterval(hits, of, 0.9)).toThrow(RangeError); // prettier-ignore
  });
});

describe('what goes best with something', () => {
  const x5 = [1, 2, 3, 4, 5];
  const against = (values: readonly (number | null)[], id = 'a') => [{ id, values }];

  // Probabilities of Spearman's coefficient, two-sided: n = 5: |r| = 1: 2/120, |r| >= 0.9: 10/120; n = 6: >= 0.886:
  // 0.0333, >= 0.829: 0.0583; n = 7: >= 0.786: 0.0480 (Zar, Biostatistical Analysis, table of exact probabilities; from
  // memory).
  it.each([
    [[1, 2, 3, 4, 5], 1, 0.0167],
    [[2, 1, 3, 4, 5], 0.9, 0.0833],
    [[2, 1, 4, 3, 5, 6], 0.886, 0.0333],
    [[2, 3, 1, 4, 5, 6], 0.829, 0.0583],
    [[3, 2, 1, 5, 4, 7, 6], 0.786, 0.048],
  ])('of one figure the chance is the exact one: %j', (y, rho, p) => {
    const found = bestAssociation(y.map((_, i) => i), against(y), 's'); // prettier-ignore
    expect(found?.rho).toBeCloseTo(rho, 3);
    // 0.829 is the rounded table value of the same step.
    expect(found?.p).toBeCloseTo(p, 3);
  });

  it('of two that are each other turned round the chance is that of one; of two that are independent it is more', () => {
    const y = [2, 1, 3, 4, 5];
    const turned = y.map((v) => -v);
    const [one] = [bestAssociation(x5, against(y), 's')];
    expect(bestAssociation(x5, [...against(y), ...against(turned, 'b')], 's')?.p).toBe(one?.p);
    const both = bestAssociation(x5, [...against(y), ...against([3, 1, 5, 2, 4], 'b')], 's');
    expect(both).toMatchObject({ id: 'a', looked: 2, count: 5 });
    expect(both?.p).toBeGreaterThan(one?.p ?? 1);
    // Bonferroni bounds it.
    expect(both?.p).toBeLessThanOrEqual(2 * (one?.p ?? 0) + 1e-12);
  });

  it('finds nothing more often than it should where there is nothing: 10 figures, 12 things', () => {
    const bits = seededBits('nothing');
    let shown = 0;
    const SETS = 60;
    for (let set = 0; set < SETS; set++) {
      const x = Array.from({ length: 12 }, () => uniform(bits));
      const ys = Array.from({ length: 10 }, (_, id) => ({ id, values: x.map(() => uniform(bits)) }));
      if ((bestAssociation(x, ys, `${set}`)?.p ?? 1) <= 0.05) shown++;
    }
    // Binomial(60, 0.05): more than 8 once in two hundred times.
    expect(shown).toBeLessThanOrEqual(8);
    expect(shown).toBeGreaterThan(0);
  }, 120_000);

  it('finds what is there, and leaves out what is known of too few, does not vary or was not measured', () => {
    const x = Array.from({ length: 14 }, (_, i) => i);
    const noise = new SeededWords('n');
    const out = new Uint32Array(14);
    noise.fill(out);
    const ys = [
      { id: 'noise', values: [...out] },
      { id: 'grows', values: x.map((v) => (v % 3 === 0 ? null : v * v)) },
      { id: 'same', values: x.map(() => 4) },
      { id: 'few', values: x.map((v) => (v < 4 ? v : null)) },
    ];
    const found = bestAssociation(x, ys, 's');
    expect(found).toMatchObject({ id: 'grows', rho: 1, count: 9, looked: 2 });
    expect(found?.p).toBeLessThan(0.01);
    // However strong: the order that was found is one of those that could have been.
    expect(found?.p).toBeGreaterThanOrEqual(1 / 2001);
    expect(bestAssociation(x, ys.slice(2), 's')).toBeNull();
    expect(bestAssociation([], [], 's')).toBeNull();
    expect(() => bestAssociation(x, [{ id: 'short', values: [1] }], 's')).toThrow(RangeError);
  });
});
