import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evenly } from '../testing/evenly';
import { abxNeeded, abxResult, sequentialAbx } from './abx';
import { agreement, meanRanks } from './agreement';
import { binomialProbability, binomialTail } from './binomial';
import { chiSquaredTail } from './chi-squared';
import { consistency } from './circular-triads';
import { factorise } from './cholesky';
import { logGamma, regularisedGammaUpper, trigamma } from './gamma';
import { matchingTail, matchingTailOfRounds, rencontres } from './matching';
import { rankCorrelation } from './rank-correlation';
import { screenListeners, summariseRatings } from './rating-screening';
import { seededBits, uniform } from './random';

describe('distributions', () => {
  it('χ² agrees with R 4.2: pchisq(x, df, lower = FALSE)', () => {
    expect(chiSquaredTail(11.143, 2)).toBeCloseTo(0.00380476899659, 12);
    expect(chiSquaredTail(3.2, 7)).toBeCloseTo(0.865904741736, 11);
    expect(chiSquaredTail(40, 12.5)).toBeCloseTo(0.000100233129635, 13);
    expect([chiSquaredTail(0, 3), chiSquaredTail(5, 0)]).toEqual([1, NaN]);
  });

  it('gamma and trigamma agree with their closed forms', () => {
    // Γ(½) = √π, Γ(¼)·Γ(¾) = π·√2, Γ(x + 1) = x·Γ(x); ψ′(1) = π²/6, ψ′(½) = π²/2, ψ′(x) = ψ′(x + 1) + 1/x².
    expect(logGamma(0.5)).toBeCloseTo(Math.log(Math.PI) / 2, 12);
    expect(logGamma(0.25) + logGamma(0.75)).toBeCloseTo(Math.log(Math.PI * Math.SQRT2), 12);
    expect(logGamma(0.1) + Math.log(0.1)).toBeCloseTo(logGamma(1.1), 12);
    expect(trigamma(1)).toBeCloseTo(Math.PI ** 2 / 6, 8);
    expect(trigamma(0.5)).toBeCloseTo(Math.PI ** 2 / 2, 8);
    for (const x of [0.3, 4.7, 5.9, 6.1, 20]) expect(trigamma(x) - trigamma(x + 1)).toBeCloseTo(1 / x ** 2, 8);
    // Q(1, x) = e^−x, Q(2, x) = (1 + x)·e^−x, on both sides of where the series gives way to the fraction.
    for (const x of [0, 0.1, 1.9, 2.1, 2.9, 3.1, 30]) {
      expect(regularisedGammaUpper(1, x)).toBeCloseTo(Math.exp(-x), 12);
      expect(regularisedGammaUpper(2, x)).toBeCloseTo((1 + x) * Math.exp(-x), 12);
    }
    expect(regularisedGammaUpper(2, -1)).toBe(1);
  });

  it('successes that cannot be, and chances that are none', () => {
    expect([-1, 5].map((k) => binomialProbability(k, 4, 0.5))).toEqual([0, 0]);
    expect([0, 1].map((k) => binomialProbability(k, 4, 0))).toEqual([1, 0]);
    expect([3, 4].map((k) => binomialProbability(k, 4, 1))).toEqual([0, 1]);
    expect([0, 5].map((k) => binomialTail(k, 4, 0.3))).toEqual([1, 0]);
    expect(binomialTail(4, 4, 0.5)).toBeCloseTo(1 / 16, 12);
  });

  it('the binomial tail is the sum of its parts', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), evenly(0.01, 0.99), (n, p) => {
        let sum = 0;
        for (let k = n; k >= 0; k--) {
          sum += binomialProbability(k, n, p);
          expect(binomialTail(k, n, p)).toBeCloseTo(sum, 10);
        }
      }),
      { numRuns: 30 },
    );
    expect([binomialTail(0, 5, 0.2), binomialTail(6, 5, 0.2)]).toEqual([1, 0]);
  });
});

describe('ABX', () => {
  // The brief's check values, and exact sums: 12 of 16 is 2517/65536; R: pbinom(11, 16, .75, lower = FALSE) = 0.630186175229.
  it('has the one-sided binomial p, the number needed and the power', () => {
    const result = abxResult(12, 16);
    expect(result.p).toBeCloseTo(2517 / 65_536, 12);
    expect(result).toMatchObject({ isShown: true, needed: 12 });
    expect(result.power).toBeCloseTo(0.630186175229, 11);
    expect(abxResult(15, 20).p).toBeCloseTo(0.0207, 4);
    expect(abxResult(11, 16).isShown).toBe(false);
    expect([abxNeeded(4, 0.05), abxNeeded(5, 0.05)]).toEqual([null, 5]);
    expect(abxResult(4, 4)).toMatchObject({ needed: null, power: 0, isShown: false });
  });

  it('open-ended keeps both errors, computed exactly over all courses of up to 400 trials', () => {
    for (const [p, verdict, most] of [
      [0.5, 'shown', 0.05],
      [0.75, 'not-shown', 0.2],
    ] as const) {
      // The ratio depends on the counts alone: walk the undecided counts, weighted by their probability.
      let open = new Map([[0, 1]]);
      const decided = { shown: 0, 'not-shown': 0 };
      for (let n = 1; n <= 400; n++) {
        const next = new Map<number, number>();
        for (const [right, weight] of open)
          for (const [k, w] of [
            [right + 1, weight * p],
            [right, weight * (1 - p)],
          ] as const)
            // prettier-ignore
            next.set(k, (next.get(k) ?? 0) + w);
        open = new Map();
        for (const [right, weight] of next) {
          const ratio = 1.5 ** right * 0.5 ** (n - right);
          if (ratio >= 20) decided.shown += weight;
          else if (ratio <= 0.2) decided['not-shown'] += weight;
          else open.set(right, weight);
        }
      }
      expect(decided[verdict]).toBeLessThanOrEqual(most);
      expect(decided[verdict]).toBeGreaterThan(most / 2);
      expect(decided.shown + decided['not-shown']).toBeCloseTo(1, 9);
    }
    // The walk above stops where the function stops: 8 right in a row are 1.5^8 = 25.6, the first power over 20.
    expect(sequentialAbx(new Array<boolean>(20).fill(true))).toMatchObject({ verdict: 'shown', trials: 8, right: 8 });
    expect(sequentialAbx([true, false, false, false, false])).toMatchObject({ verdict: 'not-shown', trials: 4 });
    expect(sequentialAbx([true, false])).toMatchObject({ verdict: 'go-on', trials: 2, ratio: 0.75 });
  });
});

describe('match the names', () => {
  it('has the rencontres numbers of 7 (Riordan 1958: 1854, 1855, 924, 315, 70, 21, 0, 1)', () => {
    expect(Array.from({ length: 8 }, (_, k) => rencontres(7, k))).toEqual([1854, 1855, 924, 315, 70, 21, 0, 1]);
    expect(1 - matchingTail(1, 7)).toBeCloseTo(1854 / 5040, 12);
    expect([matchingTail(0, 4), matchingTail(4, 4), matchingTail(5, 4)]).toEqual([1, 1 / 24, 0]);
  });

  it('adds up over rounds, as trying all of two rounds of three shows', () => {
    const orders = [[0, 1, 2], [0, 2, 1], [1, 0, 2], [1, 2, 0], [2, 0, 1], [2, 1, 0]]; // prettier-ignore
    const hits = orders.map((o) => o.filter((x, i) => x === i).length);
    for (let k = 0; k <= 6; k++) {
      const ways = hits.flatMap((a) => hits.map((b) => a + b)).filter((sum) => sum >= k).length;
      expect(matchingTailOfRounds(k, [3, 3])).toBeCloseTo(ways / 36, 12);
    }
  });
});

describe('agreement', () => {
  // R's documentation of friedman.test: RoundingTimes of Hollander & Wolfe (1973), χ² = 11.143, df 2, p = 0.003805.
  const times = [
    [5.4, 5.5, 5.55], [5.85, 5.7, 5.75], [5.2, 5.6, 5.5], [5.55, 5.5, 5.4], [5.9, 5.85, 5.7], [5.45, 5.55, 5.6],
    [5.4, 5.4, 5.35], [5.45, 5.5, 5.35], [5.25, 5.15, 5], [5.85, 5.8, 5.7], [5.25, 5.2, 5.1], [5.65, 5.55, 5.45],
    [5.6, 5.35, 5.45], [5.05, 5, 4.95], [5.5, 5.5, 5.4], [5.45, 5.55, 5.5], [5.55, 5.55, 5.35], [5.45, 5.5, 5.55],
    [5.5, 5.45, 5.25], [5.65, 5.6, 5.4], [5.7, 5.65, 5.55], [6.3, 6.3, 6.25],
  ]; // prettier-ignore

  it("is Friedman's test on Hollander & Wolfe's rounding times, ties included", () => {
    const result = agreement(times);
    expect(result).toMatchObject({ df: 2, listeners: 22, items: 3 });
    expect(result?.chiSquared).toBeCloseTo(11.143, 3);
    expect(result?.p).toBeCloseTo(0.003805, 6);
    expect(result?.w).toBeCloseTo(11.142857 / (22 * 2), 6);
  });

  it('is 1 for one mind, 0 for opposite orders, nothing for one listener', () => {
    expect(agreement([[1, 2, 3], [1, 2, 3]])?.w).toBe(1); // prettier-ignore
    expect(agreement([[1, 2, 3], [3, 2, 1]])?.w).toBe(0); // prettier-ignore
    expect([agreement([[1, 2, 3]]), agreement([[1, 1], [1, 1]])]).toEqual([null, null]); // prettier-ignore
    expect(meanRanks([5, 9, 5, 1])).toEqual([2.5, 1, 2.5, 4]);
  });
});

describe('consistency of one listener', () => {
  const counted = (beats: boolean[][]): number => {
    let circular = 0;
    for (let a = 0; a < beats.length; a++)
      for (let b = a + 1; b < beats.length; b++)
        for (let c = b + 1; c < beats.length; c++)
          if ((beats[a][b] && beats[b][c] && beats[c][a]) || (beats[b][a] && beats[c][b] && beats[a][c])) circular++;
    return circular;
  };

  it('counts circular triads as looking at each triad does, never above the most', () => {
    const bits = seededBits('triads');
    for (let n = 3; n <= 9; n++)
      for (let run = 0; run < 40; run++) {
        const beats = Array.from({ length: n }, () => new Array<boolean>(n).fill(false));
        for (let a = 0; a < n; a++)
          for (let b = 0; b < a; b++) if (uniform(bits) < 0.5) beats[a][b] = true;
            else beats[b][a] = true; // prettier-ignore
        const result = consistency(beats);
        expect(result.circular).toBe(counted(beats));
        expect(result.circular).toBeLessThanOrEqual(result.most);
      }
  });

  /** Every way in which so many items can have met. */
  function* tournaments(n: number): Generator<boolean[][]> {
    const pairs = Array.from({ length: n }, (_, a) => Array.from({ length: a }, (_, b) => [a, b] as const)).flat();
    for (let way = 0; way < 2 ** pairs.length; way++) {
      const beats = Array.from({ length: n }, () => new Array<boolean>(n).fill(false));
      pairs.forEach(([a, b], bit) => {
        if ((way >> bit) & 1) beats[a][b] = true;
        else beats[b][a] = true;
      });
      yield beats;
    }
  }

  it.each([3, 4, 5])('most, by chance and ζ are those of every way in which %i items can meet', (n) => {
    const circular: number[] = [];
    const zetas: number[] = [];
    let found = consistency([]);
    for (const beats of tournaments(n)) {
      found = consistency(beats);
      circular.push(counted(beats));
      zetas.push(found.zeta);
    }
    const most = Math.max(...circular);
    expect(found).toMatchObject({ most, p: null });
    expect(found.byChance).toBeCloseTo(circular.reduce((s, c) => s + c, 0) / circular.length, 12);
    zetas.forEach((zeta, i) => {
      expect(zeta).toBeCloseTo((most - circular[i]) / most, 12);
    });
  });

  it('two items cannot go in a circle, nor can a win over oneself count', () => {
    expect(consistency([[true, true], [false, true]])).toMatchObject({ circular: 0, most: 0, zeta: 1, byChance: 0 }); // prettier-ignore
  });

  // Upper points of χ² with 8·7·6/4² = 21 degrees of freedom, from memory of the usual table: 29.615 (0.10), 32.671
  // (0.05), 35.479 (0.025), 38.932 (0.01). χ² = 2·(14 − circular + ½) + 21.
  it.each([
    [9, 0.05, 0.1],
    [8, 0.025, 0.05],
    [7, 0.01, 0.025],
  ])('eight items with %i circular triads have a p between %f and %f', (circular, low, high) => {
    const bits = seededBits('eight');
    for (;;) {
      const beats = Array.from({ length: 8 }, () => new Array<boolean>(8).fill(false));
      for (let a = 0; a < 8; a++)
        for (let b = 0; b < a; b++) if (uniform(bits) < 0.5) beats[a][b] = true;
          else beats[b][a] = true; // prettier-ignore
      if (counted(beats) !== circular) continue;
      const { p } = consistency(beats);
      expect(p).toBeGreaterThan(low);
      expect(p).toBeLessThan(high);
      return;
    }
  });

  it('has the largest numbers of Kendall & Babington Smith (n = 7: 14, n = 8: 20), and a p that fits simulation', () => {
    const ordered = (n: number): boolean[][] => Array.from({ length: n }, (_, a) => Array.from({ length: n }, (_, b) => a < b)); // prettier-ignore
    expect(consistency(ordered(7))).toMatchObject({ circular: 0, most: 14, zeta: 1, p: null });
    expect(consistency(ordered(8)).most).toBe(20);
    const bits = seededBits('chance');
    const beats = ordered(9);
    for (const [a, b] of [[0, 8], [1, 7], [0, 4]] as const) [beats[a][b], beats[b][a]] = [false, true]; // prettier-ignore
    const { circular, p } = consistency(beats);
    let fewer = 0;
    for (let run = 0; run < 4000; run++) {
      const random = Array.from({ length: 9 }, () => new Array<boolean>(9).fill(false));
      for (let a = 0; a < 9; a++)
        for (let b = 0; b < a; b++) if (uniform(bits) < 0.5) random[a][b] = true;
          else random[b][a] = true; // prettier-ignore
      if (consistency(random).circular <= circular) fewer++;
    }
    // Both are approximations: the standard error of the simulation is 0.5 % at p = 0.1.
    expect(Math.abs((p ?? 0) - fewer / 4000)).toBeLessThan(0.02);
  });
});

describe('ratings with hidden reference (ITU-R BS.1534-3)', () => {
  it('screens out who misses the reference, or praises the anchor, in more than 15 % of the trials', () => {
    const trials = (
      listener: string,
      low: number,
      high: number,
    ): { listener: string; reference: number; midAnchor: number }[] =>
      // prettier-ignore
      Array.from({ length: 20 }, (_, i) => ({ listener, reference: i < low ? 89 : 90, midAnchor: i < high ? 91 : 90 }));
    const kept = screenListeners([...trials('a', 3, 0), ...trials('b', 4, 0), ...trials('c', 0, 4), ...trials('d', 0, 3)]); // prettier-ignore
    expect(kept.map((k) => [k.listener, k.isKept])).toEqual([['a', true], ['b', false], ['c', false], ['d', true]]); // prettier-ignore
    expect(screenListeners([{ listener: 'x', reference: 95, midAnchor: null }])[0].isKept).toBe(true);
  });

  it('gives medians with their distribution-free interval', () => {
    // Tables of the sign test (Conover): of 10 ratings the 2nd and the 9th (97.9 %), of 6 the 1st and the last, of 5 none.
    const ten = summariseRatings([10, 20, 30, 40, 50, 60, 70, 80, 90, 100]);
    expect(ten.median95).toEqual([20, 90]);
    expect([ten.median, ...ten.quartiles]).toEqual([55, 32.5, 77.5]);
    expect(summariseRatings([1, 2, 3, 4, 5, 6]).median95).toEqual([1, 6]);
    expect(summariseRatings([1, 2, 3, 4, 5]).median95).toBeNull();
    // R: t.test(c(62, 70, 55, 81))$conf.int = 49.23332 … 84.76668
    expect(summariseRatings([62, 70, 55, 81]).mean95?.map((x) => x.toFixed(2))).toEqual(['49.23', '84.77']);
    expect(summariseRatings([62]).mean95).toBeNull();
  });
});

describe('rank correlation', () => {
  // scipy 1.10: stats.spearmanr([0.2, 0.2, 0.7, 0, 1, 0.4], [3, 1, 4, 1, 5, 9]).correlation
  it('agrees with scipy, ties included, and says nothing where nothing varies', () => {
    expect(rankCorrelation([0.2, 0.2, 0.7, 0, 1, 0.4], [3, 1, 4, 1, 5, 9])).toBeCloseTo(0.7794117647058825, 12);
    expect(rankCorrelation([1, 2, 3], [4, 5, 9])).toBeCloseTo(1, 12);
    expect(rankCorrelation([1, 1, 1], [4, 5, 9])).toBeNull();
  });
});

describe('Cholesky', () => {
  it('inverts, also where the size is no multiple of four, and refuses what is not positive definite', () => {
    for (const n of [1, 2, 3, 5, 8, 13]) {
      const bits = seededBits(`matrix ${n}`);
      const root = Float64Array.from({ length: n * n }, () => uniform(bits) - 0.5);
      const a = new Float64Array(n * n);
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) {
          a[i * n + j] = i === j ? 0.1 : 0;
          for (let k = 0; k < n; k++) a[i * n + j] += root[i * n + k] * root[j * n + k];
        }
      const inverse = factorise(a, n)?.inverse() ?? new Float64Array();
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) {
          let sum = 0;
          for (let k = 0; k < n; k++) sum += a[i * n + k] * inverse[k * n + j];
          expect(sum).toBeCloseTo(i === j ? 1 : 0, 9);
        }
    }
    expect(factorise(Float64Array.of(1, 2, 2, 1), 2)).toBeNull();
  });
});
