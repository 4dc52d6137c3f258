import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mean, standardDeviation } from './moments';
import { fillStandardNormal, normalQuantile, standardNormal } from './normal';
import { selectInPlace } from './order-statistic';
import { quantile, quantileSorted } from './quantile';
import { SeededWords, seededBits, uniform } from './random';

describe('normalQuantile', () => {
  // scipy 1.10.1: stats.norm.ppf(q)
  it.each([
    [1e-9, -5.9978070150076865],
    [0.001, -3.090232306167813],
    [0.025, -1.9599639845400545],
    [0.1, -1.2815515655446004],
    [0.3, -0.5244005127080409],
    [0.5, 0],
    [0.8, 0.8416212335729143],
    [0.975, 1.959963984540054],
    [0.999999, 4.753424308817087],
  ])('at %f is %f', (p, expected) => {
    expect(normalQuantile(p)).toBeCloseTo(expected, 10);
  });

  it('knows its edges', () => {
    expect(normalQuantile(0)).toBe(-Infinity);
    expect(normalQuantile(1)).toBe(Infinity);
    for (const p of [-0.1, 1.1, NaN]) expect(normalQuantile(p)).toBeNaN();
  });
});

describe('quantile', () => {
  // numpy 1.24: np.quantile([1, 2, 4, 7, 11.5, 12], [.05, .25, .5, .9]) (linear, which is R's type 7)
  it('is R’s type 7', () => {
    const values = [12, 1, 7, 2, 11.5, 4];
    expect([0.05, 0.25, 0.5, 0.9].map((p) => quantile(values, p))).toEqual([1.25, 2.5, 5.5, 11.75]);
  });

  it('knows its edges', () => {
    expect(quantileSorted([], 0.5)).toBeNaN();
    expect(quantileSorted([3], 0.9)).toBe(3);
    expect(quantileSorted([3, 4], 1)).toBe(4);
  });
});

describe('selectInPlace', () => {
  it('finds what sorting finds', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ noNaN: true }), { minLength: 1, maxLength: 60 }), fc.nat(), (values, n) => {
        const k = n % values.length;
        expect(selectInPlace(Float64Array.from(values), k)).toBe(Float64Array.from(values).sort()[k]);
      }),
    );
    expect(selectInPlace(Int32Array.of(5, 5, 5), 1)).toBe(5);
  });
});

describe('moments', () => {
  // NIST StRD "NumAcc1": 10000001, 10000003, 10000002; certified mean 10000002, standard deviation 1.
  it('agree with NIST StRD NumAcc1', () => {
    const data = [10_000_001, 10_000_003, 10_000_002];
    expect(mean(data)).toBe(10_000_002);
    expect(standardDeviation(data)).toBe(1);
  });

  // NIST StRD "NumAcc3": 1000000.2, then 500 × (1000000.1, 1000000.3); certified mean 1000000.2, deviation 0.1.
  it('agree with NIST StRD NumAcc3', () => {
    const data = [1_000_000.2, ...Array.from({ length: 1000 }, (_, i) => (i % 2 === 0 ? 1_000_000.1 : 1_000_000.3))];
    expect(mean(data)).toBeCloseTo(1_000_000.2, 8);
    expect(standardDeviation(data)).toBeCloseTo(0.1, 9);
  });

  it('have no scatter of one value', () => {
    expect(standardDeviation([1])).toBeNaN();
    expect(mean([])).toBeNaN();
  });
});

describe('seededBits', () => {
  it('repeats itself, and differs from seed to seed', () => {
    const take = (seed: string): number[] => Array.from({ length: 5 }, seededBits(seed));
    expect(take('a')).toEqual(take('a'));
    expect(take('a')).not.toEqual(take('b'));
  });

  it('is uniform: mean, variance and neighbour correlation over 1e5 draws', () => {
    const bits = seededBits('uniform');
    const x = Array.from({ length: 100_000 }, () => uniform(bits));
    // Four standard errors: 1/√(12n) for the mean, √(1/180n) for the variance, 1/√n for the correlation.
    expect(Math.abs(mean(x) - 0.5)).toBeLessThan(4 / Math.sqrt(12e5));
    expect(Math.abs(standardDeviation(x) ** 2 - 1 / 12)).toBeLessThan(4 / Math.sqrt(180e5));
    const lagged = mean(x.slice(1).map((v, i) => (v - 0.5) * (x[i] - 0.5))) * 12;
    expect(Math.abs(lagged)).toBeLessThan(4 / Math.sqrt(1e5));
  });

  it('gives normal numbers with mean 0 and deviation 1', () => {
    const bits = seededBits('normal');
    const x = Array.from({ length: 100_000 }, () => standardNormal(bits));
    expect(Math.abs(mean(x))).toBeLessThan(4 / Math.sqrt(1e5));
    expect(Math.abs(standardDeviation(x) - 1)).toBeLessThan(4 / Math.sqrt(2e5));
    expect(x.filter((v) => v > 1.6449).length / 1e5).toBeCloseTo(0.05, 2);
  });

  it('fills arrays of any length with such numbers, the same for the same seed', () => {
    const fill = (count: number): Float32Array => {
      const out = new Float32Array(count);
      fillStandardNormal(out, new SeededWords('fill'), new Uint32Array(count));
      return out;
    };
    const x = fill(100_001);
    expect(Math.abs(mean(x))).toBeLessThan(4 / Math.sqrt(1e5));
    expect(Math.abs(standardDeviation(x) - 1)).toBeLessThan(4 / Math.sqrt(2e5));
    expect(fill(7)).toEqual(x.slice(0, 7));
  });
});
