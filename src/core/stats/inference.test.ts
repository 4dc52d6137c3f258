import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assign } from './assignment';
import { pairedOffset, type BridgePair } from './paired-offset';
import { shuffled } from './shuffle';
import { studentCdf, studentQuantile } from './student-t';

describe("Student's t", () => {
  // scipy 1.10: stats.t.ppf(p, df) for p = 0.9, 0.975, 0.995 (its ppf itself is good to 3e-9), and stats.t.cdf(1.3, df).
  it.each([
    [1, [3.0776835372078066, 12.706204736432095, 63.65674116287399], 0.7912855998398474],
    [2, [1.8856180831641507, 4.302652729911275, 9.92484320091807], 0.8383764840919797],
    [3, [1.637744357215907, 3.182446305284263, 5.84090929975643], 0.8577662456360515],
    [5, [1.4758840487820273, 2.5705818366147395, 4.032142983557536], 0.8748496829146615],
    [10, [1.3721836411102863, 2.2281388519649385, 3.169272667175838], 0.8886170913965777],
    [30, [1.3104150225671307, 2.0422724563012373, 2.7499956535670305], 0.8982495207309416],
    [120, [1.2886462336537166, 1.9799304050527766, 2.617421144765004], 0.9019537611204569],
  ])('agrees with scipy at %i degrees of freedom', (df, quantiles, cdf) => {
    [0.9, 0.975, 0.995].forEach((p, i) => expect(studentQuantile(p, df) / quantiles[i]).toBeCloseTo(1, 8));
    expect(studentCdf(1.3, df)).toBeCloseTo(cdf, 11);
  });

  it('is symmetric, and says nothing where it is not defined', () => {
    expect(studentQuantile(0.025, 4)).toBeCloseTo(-studentQuantile(0.975, 4), 12);
    expect(studentQuantile(0.5, 4)).toBe(0);
    expect([studentQuantile(0, 4), studentQuantile(1, 4), studentQuantile(0.9, 0), studentCdf(1, -1)]).toEqual([
      NaN,
      NaN,
      NaN,
      NaN,
    ]);
    expect([studentCdf(-Infinity, 3), studentCdf(Infinity, 3)]).toEqual([0, 1]);
  });
});

describe('paired offset', () => {
  const pair = (difference: number, u: number | null = null): BridgePair => ({
    before: 10,
    after: 10 + difference,
    beforeUncertainty: u,
    afterUncertainty: u,
  });

  // scipy 1.10: ttest_1samp([1.2, 0.8, 1.5, 0.9, 1.1], 0).confidence_interval(0.95) = (0.7600, 1.4400), standard error 0.12247.
  it('gives mean, standard error and interval of the differences', () => {
    const offset = pairedOffset([1.2, 0.8, 1.5, 0.9, 1.1].map((d) => pair(d)));
    expect(offset?.offset).toBeCloseTo(1.1, 12);
    expect(offset?.uncertainty).toBeCloseTo(0.1224744871391589, 9);
    expect(offset?.interval95?.[0]).toBeCloseTo(0.7599567, 5);
    expect(offset?.interval95?.[1]).toBeCloseTo(1.4400433, 5);
  });

  it("is no surer than the figures' own uncertainties allow, however well few units agree", () => {
    const offset = pairedOffset([pair(1, 0.3), pair(1.01, 0.3)]);
    expect(offset?.uncertainty).toBeCloseTo(Math.sqrt(4 * 0.3 ** 2) / 2, 9);
    // What is known counts with the normal coverage, 1.959964 (scipy norm.ppf(0.975)).
    expect((offset?.interval95?.[1] ?? 0) - 1.005).toBeCloseTo(1.959964 * 0.3, 5);
  });

  it('takes one unit with its uncertainty, without an interval; refuses what tells nothing', () => {
    expect(pairedOffset([pair(2, 0.3)])).toMatchObject({ offset: 2, count: 1, interval95: null });
    expect(pairedOffset([pair(2)])).toBeNull();
    expect(pairedOffset([])).toBeNull();
  });

  it('recovers an offset that was put in, within its uncertainty (95 of 100 times or nearly)', () => {
    let hits = 0;
    for (let run = 0; run < 200; run++) {
      const noise = shuffled([-0.9, -0.5, -0.2, 0.1, 0.3, 0.6, 0.9], `run ${run}`);
      const interval = pairedOffset(noise.slice(0, 5).map((n) => pair(0.7 + n)))?.interval95;
      // The seven values have a mean of 0.043; that is what five of them estimate.
      if (interval && interval[0] <= 0.743 && interval[1] >= 0.743) hits++;
    }
    expect(hits).toBeGreaterThan(180);
  });
});

describe('assignment', () => {
  const total = (cost: readonly (readonly number[])[], columns: readonly number[]): number =>
    columns.reduce((s, c, r) => s + cost[r][c], 0);

  // scipy 1.10: linear_sum_assignment([[4,1,3],[2,0,5],[3,2,2]]) gives columns 1, 0, 2 with a total of 5.
  it('agrees with scipy', () => {
    expect(
      assign([
        [4, 1, 3],
        [2, 0, 5],
        [3, 2, 2],
      ]),
    ).toEqual([1, 0, 2]);
  });

  it('finds what trying everything finds', () => {
    const matrices = fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 0, max: 2 })).chain(([rows, more]) =>
      fc.array(fc.array(fc.integer({ min: -20, max: 20 }), { minLength: rows + more, maxLength: rows + more }), {
        minLength: rows,
        maxLength: rows,
      }),
    );
    fc.assert(
      fc.property(matrices, (cost) => {
        const columns = assign(cost);
        expect(new Set(columns).size).toBe(cost.length);
        const best = Math.min(...orders(cost[0].length, cost.length).map((o) => total(cost, o)));
        expect(total(cost, columns)).toBe(best);
      }),
      { numRuns: 200 },
    );
  });

  it('says so when there are too few columns', () => {
    expect(() => assign([[1], [2]])).toThrow(/as many columns/);
    expect(assign([])).toEqual([]);
  });
});

/** All ways to choose `length` different columns. */
function orders(columns: number, length: number): number[][] {
  if (length === 0) return [[]];
  return orders(columns, length - 1).flatMap((o) =>
    Array.from({ length: columns }, (_, c) => c)
      .filter((c) => !o.includes(c))
      .map((c) => [...o, c]),
  );
}

describe('shuffle', () => {
  it('keeps all, changes nothing given, repeats with its seed', () => {
    const items = [1, 2, 3, 4, 5, 6];
    expect([...shuffled(items, 'a')].sort()).toEqual(items);
    expect(shuffled(items, 'a')).toEqual(shuffled(items, 'a'));
    expect(items).toEqual([1, 2, 3, 4, 5, 6]);
  });

  it('puts every item in every place about equally often', () => {
    const counts = [0, 0, 0];
    for (let i = 0; i < 3000; i++) counts[shuffled(['x', 'y', 'z'], `seed ${i}`).indexOf('x')]++;
    // Standard deviation of a count: √(3000·⅓·⅔) = 26; five of them.
    for (const count of counts) expect(Math.abs(count - 1000)).toBeLessThan(130);
  });
});
