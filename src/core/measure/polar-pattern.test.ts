import { describe, expect, it } from 'vitest';
import { seededBits } from '../stats/random';
import { standardNormal } from '../stats/normal';
import { mean, standardDeviation } from '../stats/moments';
import { firstOrderGain, nearestPattern, polarLevels } from './polar-pattern';

const ANGLES = [45, 90, 135, 180];
const levelsOf = (alpha: number, u: number, noise: () => number = () => 0) =>
  [0, ...ANGLES].map((angleDeg) => ({
    angleDeg,
    db: 20 * Math.log10(firstOrderGain(alpha, angleDeg)) + (angleDeg === 0 ? 0 : u * noise()),
    u: angleDeg === 0 ? 0 : u,
  }));

describe('the nearest first-order pattern', () => {
  it('of a pattern is that pattern, as sure as its levels', () => {
    const exact = nearestPattern(levelsOf(0.7, 0));
    expect(exact?.alpha).toBeCloseTo(0.7, 5);
    expect(exact?.residual).toBeLessThan(1e-5);
    // Between the hundredths that are tried first.
    expect(nearestPattern(levelsOf(0.7028, 0))?.alpha).toBeCloseTo(0.7028, 5);
    expect(exact?.alphaU).toBeLessThan(1e-4);
    // Least squares of one parameter: Σg²u² under the root over Σg², u that of each amplitude, 10^(dB/20)·ln 10/20·u.
    const u = 0.3;
    const terms = ANGLES.map((angle) => {
      const slope = 1 - Math.cos((angle * Math.PI) / 180);
      return { slope, own: firstOrderGain(0.7, angle) * (Math.LN10 / 20) * u };
    });
    const wanted = Math.sqrt(terms.reduce((s, t) => s + (t.slope * t.own) ** 2, 0)) / terms.reduce((s, t) => s + t.slope ** 2, 0); // prettier-ignore
    expect(nearestPattern(levelsOf(0.7, u))?.alphaU).toBeCloseTo(wanted, 4);
  });

  it('scatters by no more than its ± says', () => {
    const bits = seededBits('polar');
    const fits = Array.from({ length: 300 }, () => nearestPattern(levelsOf(0.7, 0.3, () => standardNormal(bits))));
    const sd = standardDeviation(fits.map((f) => f?.alpha ?? NaN));
    // Never less, and up to twice as much: what is left unexplained is counted beside the noise that it comes from, as if
    // every angle had as much of it as the loudest. A deviation of 300 is 4 % sure.
    const said = mean(fits.map((f) => f?.alphaU ?? NaN));
    expect(said / sd).toBeGreaterThan(1);
    expect(said / sd).toBeLessThan(2);
  });

  it('is less sure of what no first-order pattern explains', () => {
    const odd = levelsOf(0.7, 0).map((l) => (l.angleDeg === 90 ? { ...l, db: l.db - 6 } : l));
    const found = nearestPattern(odd);
    expect(found?.residual).toBeGreaterThan(0.05);
    expect(found?.alphaU).toBeGreaterThan(0.03);
  });
});

it('levels of an octave that a response does not reach are none, and the others count', () => {
  const points = (db: number) =>
    Array.from({ length: 200 }, (_, i) => ({ hz: 700 * 2 ** (i / 40), db, u: 0.1 })).filter((p) => p.hz < 12_000);
  const [front, side] = polarLevels(points(0), [{ angleDeg: 90, points: points(-6) }]);
  expect(front.octavesDb.slice(0, 2)).toEqual([null, null]);
  expect(side.octavesDb.slice(0, 2)).toEqual([null, null]);
  expect(side.octavesDb[2]).toBeCloseTo(-6, 9);
  expect([front.broadbandDb, front.u]).toEqual([0, 0]);
  expect(side.broadbandDb).toBeCloseTo(-6, 9);
  expect(side.u).toBeGreaterThan(0);
});
