import fc from 'fast-check';
import { expect, it } from 'vitest';
import { rankCorrelation } from './rank-correlation';
import { ReorderedRanks } from './reordered-ranks';

it('is the rank correlation of the reordered list, ties, gaps and lists that do not vary included', () => {
  const lists = fc.integer({ min: 2, max: 9 }).chain((n) =>
    fc.record({
      of: fc.array(fc.integer({ min: 0, max: 4 }), { minLength: n, maxLength: n }),
      other: fc.array(fc.option(fc.integer({ min: -3, max: 3 })), { minLength: n, maxLength: n }),
      order: fc.shuffledSubarray(Array.from({ length: n }, (_, i) => i), { minLength: n, maxLength: n }),
    }),
  ); // prettier-ignore
  fc.assert(
    fc.property(lists, ({ of, other, order }) => {
      const at = other.flatMap((v, i) => (v === null ? [] : [i]));
      const values = other.flatMap((v) => v ?? []);
      const expected = rankCorrelation(at.map((i) => of[order[i]]), values); // prettier-ignore
      const found = new ReorderedRanks(of, at, values).correlation(order);
      if (expected === null) expect(found).toBeNull();
      else expect(found).toBeCloseTo(expected, 12);
    }),
    { numRuns: 1000 },
  );
});
