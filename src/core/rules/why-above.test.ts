import { describe, expect, it } from 'vitest';
import type { UnitFacts } from './criterion-points';
import { rankUnits } from './rank';
import type { Rubric } from './rubric';
import { whyAbove } from './why-above';

const hand = (id: string) => ({ id, name: id, meaning: 'm', kind: 'by-hand', repeatability: 0.3 }) as const;
const RUBRIC: Rubric = {
  id: 'r',
  version: 1,
  name: 'R',
  category: 'microphone',
  criteria: [hand('sound'), hand('build'), hand('looks')],
  weights: { sound: 2, build: 1, looks: 1 },
  stratumProbability: 0.9,
};
const unit = (id: string, points: Readonly<Record<string, number>>): UnitFacts => ({
  id,
  figures: {},
  byHand: Object.fromEntries(Object.entries(points).map(([c, value]) => [c, { value, reason: null }])),
  prices: [],
});
const A = unit('a', { sound: 4, build: 3, looks: 2 });
const B = unit('b', { sound: 3, build: 3.5, looks: 3 });

describe('why one stands above the other', () => {
  const why = whyAbove([A, B], RUBRIC, 'a', 'b');
  it('shares add up to the difference, most telling first', () => {
    // (2·4 + 3 + 2)/4 − (2·3 + 3.5 + 3)/4 = 13/4 − 12.5/4.
    expect(why.difference).toBeCloseTo(0.125, 12);
    expect(why.shares.map((s) => [s.criterion, s.difference])).toEqual([
      ['sound', 0.5],
      ['looks', -0.25],
      ['build', -0.125],
    ]);
    // Two scatters of 0.3 under half of the weight: 0.5·0.3·√2; 1,000 draws leave 2 %.
    expect(Math.abs(why.shares[0].sd - 0.2121)).toBeLessThan(0.02);
    expect(Math.abs(why.sd - 0.3 * Math.sqrt(2) * Math.hypot(0.5, 0.25, 0.25))).toBeLessThan(0.02);
  });

  it('is as sure as the ranking says', () => {
    const [first] = rankUnits([A, B], RUBRIC);
    expect(why.probability).toBe(first.beatsNext);
    expect(whyAbove([A, B], RUBRIC, 'b', 'a').probability).toBeCloseTo(1 - why.probability, 12);
  });

  it('turns with the least change of one weight, and of one criterion', () => {
    // 2·1 − 1·0.5 − 1·1 = 0.5: looks at 1.5, sound at 1.5, build at 2; the first of the equal ones is told.
    expect(why.weight).toEqual({ criterion: 'sound', from: 2, to: 1.5 });
    const at = (weights: Rubric['weights']) => rankUnits([A, B], RUBRIC, { weights }).map((u) => u.composite);
    const [one, other] = at({ ...RUBRIC.weights, sound: 1.5 });
    expect(one).toBeCloseTo(other, 12);
    expect(why.points).toEqual({ criterion: 'sound', unit: 'second', gains: true, by: 0.25 });
  });

  it('the first loses where the second has no room to gain, and nothing turns what nothing can', () => {
    const [top, low] = [unit('t', { sound: 5, build: 5, looks: 5 }), unit('l', { sound: 4.9, build: 5, looks: 5 })];
    expect(whyAbove([top, low], RUBRIC, 't', 'l').points).toEqual({ criterion: 'sound', unit: 'second', gains: true, by: expect.closeTo(0.1, 9) as number }); // prettier-ignore
    const [best, worst] = [unit('x', { sound: 5, build: 5, looks: 5 }), unit('y', { sound: 0, build: 0, looks: 0 })];
    const never = whyAbove([best, worst], RUBRIC, 'x', 'y');
    expect([never.weight, never.points]).toEqual([null, null]);
    const one = unit('o', { sound: 5, build: 4, looks: 4 });
    const two = unit('p', { sound: 4.5, build: 4.5, looks: 3.8 });
    // Asked the other way round, the same has to change.
    expect(whyAbove([A, B], RUBRIC, 'b', 'a').points).toEqual({
      criterion: 'sound',
      unit: 'first',
      gains: true,
      by: 0.25,
    });
    expect(whyAbove([A, B], RUBRIC, 'b', 'a').weight).toEqual({ criterion: 'sound', from: 2, to: 1.5 });
    // Where the one below is at the top of the scale, the one above loses.
    const full = unit('f', { sound: 5, build: 2, looks: 2 });
    const even = unit('e', { sound: 5, build: 4.9, looks: 4.9 });
    expect(whyAbove([even, full], { ...RUBRIC, weights: { sound: 40, build: 1, looks: 1 } }, 'e', 'f').points).toMatchObject({ criterion: 'sound', unit: 'first', gains: false }); // prettier-ignore
    // Looks and build of the second reach 5 before they make up for it; sound does, at 4.75.
    expect(whyAbove([one, two], RUBRIC, 'o', 'p').points?.criterion).toBe('sound');
  });

  it('what is missing stands in with the catalogue’s mean, and is called so', () => {
    const missing = unit('m', { sound: 4, build: 3 });
    const { shares } = whyAbove([A, B, missing], RUBRIC, 'a', 'm');
    expect(shares.find((s) => s.criterion === 'looks')?.second).toMatchObject({ points: 2.5, isAssumed: true });
    expect(() => whyAbove([A, B], RUBRIC, 'a', 'nobody')).toThrow(RangeError);
  });
});
