import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { UnitFacts } from './criterion-points';
import { seededBits, uniform } from '../stats/random';
import { rankUnits } from './rank';
import { rankDistribution } from '../stats/place-distribution';
import type { Rubric } from './rubric';
import { probabilityOfBeating, strataOf } from './strata';

const rubric = (repeatability = 0.3): Rubric => ({
  id: 'test',
  version: 1,
  name: 'Test',
  category: 'microphone',
  criteria: [
    {
      id: 'noise',
      name: 'Noise',
      meaning: '…',
      kind: 'measured',
      quantity: 'noiseReSpeechA',
      curve: [
        [-80, 5],
        [-40, 0],
      ],
      repeatability: 0,
    },
    { id: 'sound', name: 'Sound', meaning: '…', kind: 'by-hand', repeatability },
    {
      id: 'value',
      name: 'Value',
      meaning: '…',
      kind: 'price',
      currency: 'EUR',
      basis: ['street'],
      curve: [
        [0, 5],
        [1000, 0],
      ],
      limit: null,
    },
  ],
  weights: { noise: 1, sound: 2, value: 1 },
  stratumProbability: 0.9,
});

const unit = (
  id: string,
  facts: {
    noise?: number | null;
    u?: number;
    bound?: 'exact' | 'at-least' | 'at-most';
    sound?: number;
    price?: number;
  },
): UnitFacts => ({
  id,
  figures:
    facts.noise === undefined
      ? {}
      : {
          noiseReSpeechA: {
            value: facts.noise,
            uncertainty: facts.u ?? null,
            bound: facts.bound ?? 'exact',
            notMeasured: facts.noise === null ? 'the take is silent' : null,
          },
        },
  byHand: facts.sound === undefined ? {} : { sound: { value: facts.sound, reason: null } },
  prices:
    facts.price === undefined ? [] : [{ amount: facts.price, currency: 'EUR', kind: 'street', date: '2025-01-01' }],
});

describe('rankUnits', () => {
  it('makes the composite by hand-checkable arithmetic', () => {
    const [only] = rankUnits([unit('a', { noise: -60, sound: 4, price: 200 })], rubric());
    // (1·2.5 + 2·4 + 1·4) / 4
    expect(only.composite).toBeCloseTo(3.625, 12);
    expect(only).toMatchObject({ place: 1, stratum: 1, rank90: [1, 1], beatsNext: null, missing: [] });
    // Only sound has scatter: 0.3 at half of the weight. Four standard errors of 1,000 draws.
    expect(Math.abs(only.sd - 0.15)).toBeLessThan((4 * 0.15) / Math.sqrt(2000));
    expect(only.composite90[0]).toBeCloseTo(3.625 - 1.645 * 0.15, 1);
    expect(only.composite90[1]).toBeCloseTo(3.625 + 1.645 * 0.15, 1);
  });

  it('knows the closed form of two normal composites', () => {
    // Difference of composites: mean 0.1, deviation √2·0.15; Φ(0.1/0.2121) = 0.6813.
    const [a] = rankUnits(
      [unit('a', { noise: -60, sound: 4.2, price: 200 }), unit('b', { noise: -60, sound: 4, price: 200 })],
      rubric(),
      { draws: 20_000 },
    );
    expect(a.id).toBe('a');
    expect(Math.abs((a.beatsNext ?? 0) - 0.6813)).toBeLessThan(4 * Math.sqrt((0.68 * 0.32) / 20_000));
    expect(a.expectedRank).toBeCloseTo(2 - 0.6813, 1);
  });

  it('never counts a missing criterion as zero, shows it, and widens the interval', () => {
    const others = [1, 2, 3, 4, 5].map((sound, i) => unit(`o${i}`, { noise: -60, sound, price: 200 }));
    const ranked = rankUnits([...others, unit('gap', { noise: -60, price: 200 })], rubric());
    const gap = ranked.find((u) => u.id === 'gap');
    const middle = ranked.find((u) => u.id === 'o2');
    expect(gap?.missing).toEqual(['sound']);
    expect(gap?.points['sound']).toEqual({ points: null, why: 'no points given yet', assumed: 3 });
    expect(gap?.composite).toBeCloseTo(middle?.composite as number, 12);
    expect(gap?.sd).toBeGreaterThan(3 * (middle?.sd as number));
    expect((gap?.rank90[1] ?? 0) - (gap?.rank90[0] ?? 0)).toBeGreaterThan(
      (middle?.rank90[1] ?? 0) - (middle?.rank90[0] ?? 0),
    );
  });

  it('tells a figure that could not be measured from one that was', () => {
    const [a] = rankUnits([unit('a', { noise: null, sound: 3, price: 100 })], rubric());
    expect(a.points['noise']).toMatchObject({ points: null, why: 'the take is silent', assumed: 2.5 });
  });

  it('draws beyond a limit only to its open side', () => {
    const exact = rankUnits([unit('a', { noise: -60, sound: 3, price: 100 })], rubric(0))[0];
    const limited = rankUnits([unit('a', { noise: -60, bound: 'at-most', sound: 3, price: 100 })], rubric(0))[0];
    expect(exact.sd).toBe(0);
    expect(limited.composite).toBe(exact.composite);
    expect(limited.composite90[0]).toBeGreaterThanOrEqual(exact.composite - 1e-9);
    expect(limited.composite90[1]).toBeGreaterThan(exact.composite + 0.05);
  });

  it('repeats itself, and a new unit does not disturb the draws of the others', () => {
    const units = [
      unit('a', { noise: -60, u: 1, sound: 4, price: 200 }),
      unit('b', { noise: -55, u: 1, sound: 4, price: 200 }),
    ];
    const once = rankUnits(units, rubric());
    expect(rankUnits(units, rubric())).toEqual(once);
    const more = rankUnits([...units, unit('c', { noise: -50, sound: 1, price: 900 })], rubric());
    expect(more.find((u) => u.id === 'a')?.composite90).toEqual(once.find((u) => u.id === 'a')?.composite90);
  });

  it('does not depend on the order in which units are given', () => {
    const units = Array.from({ length: 30 }, (_, i) =>
      unit(`u${i}`, { noise: -45 - i, u: 1, sound: (i * 7) % 5, price: 50 + 30 * i }),
    );
    fc.assert(
      fc.property(fc.shuffledSubarray(units, { minLength: 30 }), (shuffled) => {
        expect(rankUnits(shuffled, rubric(), { draws: 50 }).map((u) => [u.id, u.place, u.stratum])).toEqual(
          rankUnits(units, rubric(), { draws: 50 }).map((u) => [u.id, u.place, u.stratum]),
        );
      }),
      { numRuns: 5 },
    );
  });

  it('follows other weights, and counts all alike where all are zero', () => {
    const units = [
      unit('quiet', { noise: -78, sound: 1, price: 200 }),
      unit('fine', { noise: -45, sound: 5, price: 200 }),
    ];
    expect(rankUnits(units, rubric())[0].id).toBe('fine');
    expect(rankUnits(units, rubric(), { weights: { noise: 1, sound: 0, value: 0 } })[0].id).toBe('quiet');
    expect(rankUnits(units, rubric(), { weights: {} })[0].composite).toBeCloseTo((4.75 + 1 + 4) / 3, 9);
  });

  it('keeps places and intervals in order: 1…n, low ≤ high', () => {
    const units = Array.from({ length: 200 }, (_, i) =>
      unit(`u${i}`, { noise: -50 - (i % 17), u: 2, sound: (i % 11) / 2, price: 100 + i }),
    );
    const ranked = rankUnits(units, rubric());
    expect(ranked.map((u) => u.place)).toEqual(ranked.map((_, i) => i + 1));
    for (const u of ranked) {
      expect(u.rank90[0]).toBeLessThanOrEqual(u.rank90[1]);
      expect(u.rank90[0]).toBeGreaterThanOrEqual(1);
      expect(u.rank90[1]).toBeLessThanOrEqual(200);
    }
    expect(ranked.map((u) => u.stratum)).toEqual(ranked.map((u) => u.stratum).sort((a, b) => a - b));
    const meanRank = ranked.reduce((s, u) => s + u.expectedRank, 0) / 200;
    expect(meanRank).toBeCloseTo(100.5, 9);
  });

  it('has no units, no ranking', () => {
    expect(rankUnits([], rubric())).toEqual([]);
  });
});

describe('rankDistribution', () => {
  it('gives the places that sorting gives, and shares places among equals', () => {
    const bits = seededBits('places');
    const drawn = Array.from({ length: 40 }, () => Float64Array.from({ length: 200 }, () => 5 * uniform(bits)));
    const byCounting = rankDistribution(drawn);
    drawn.forEach((mine, u) => {
      const places = Array.from(mine, (x, d) => 1 + drawn.filter((other) => other[d] > x).length);
      const sorted = places.slice().sort((a, b) => a - b);
      expect(byCounting[u].mean).toBeCloseTo(places.reduce((s, p) => s + p, 0) / 200, 1);
      expect(Math.abs(byCounting[u].interval[0] - sorted[9])).toBeLessThanOrEqual(1);
      expect(Math.abs(byCounting[u].interval[1] - sorted[189])).toBeLessThanOrEqual(1);
    });
    const equal = rankDistribution([Float64Array.of(1, 1), Float64Array.of(1, 1), Float64Array.of(0, 0)]);
    expect(equal.map((e) => e.mean)).toEqual([1.5, 1.5, 3]);
    expect(equal[0].interval).toEqual([1, 2]);
  });
});

describe('strata', () => {
  const draws = (...values: number[]): Float64Array => Float64Array.from(values);

  it('counts equal draws as half a win', () => {
    expect(probabilityOfBeating(draws(1, 2, 3, 4), draws(1, 1, 3, 5))).toBe(0.5);
  });

  it('opens one when the first of the stratum, not the neighbour above, beats a unit surely enough', () => {
    const ten = (f: (d: number) => number): Float64Array => Float64Array.from({ length: 10 }, (_, d) => f(d));
    const a = ten(() => 10);
    const b = ten((d) => (d < 8 ? 9 : 11)); // a beats b in 8 of 10
    const c = ten((d) => (d < 9 ? 8 : 12)); // a beats c in 9 of 10, b beats c in 9
    const d = ten((i) => (i < 8 ? 7.9 : 12));
    expect(strataOf([a, b, c, d], 0.9, probabilityOfBeating)).toEqual([1, 1, 2, 2]);
    expect(strataOf([a, b, c, d], 0.95, probabilityOfBeating)).toEqual([1, 1, 1, 1]);
    expect(strataOf([], 0.9, probabilityOfBeating)).toEqual([]);
  });
});
