import { describe, expect, it } from 'vitest';
import { exceededTenth, usableWind } from './field-noise';

const at = (...pairs: [number, number][]) => pairs.map(([speedMs, aDb]) => ({ speedMs, aDb }));

describe('highest usable speed of the wind', () => {
  it('lies between two readings: pressure by the square of the speed is 12 dB per doubling', () => {
    // −16 dB at 4 m/s, −4 dB at 8 m/s: the limit of −10 dB is half of the way, at 4·√2.
    expect(usableWind(at([8, -4], [4, -16]))).toEqual({ speedMs: expect.closeTo(5.657, 3) as number, bound: 'exact' });
    expect(usableWind(at([4, -16], [8, -4]), -16)?.speedMs).toBeCloseTo(4, 9);
  });

  it('is a limit where all readings lie on one side', () => {
    expect(usableWind(at([3, -30], [7, -12]))).toEqual({ speedMs: 7, bound: 'at-least' });
    expect(usableWind(at([3, -2], [7, 8]))).toEqual({ speedMs: 3, bound: 'at-most' });
  });

  it('counts the loudest of one speed, and no still air', () => {
    expect(usableWind(at([5, -20], [5, -6]))).toEqual({ speedMs: 5, bound: 'at-most' });
    expect(usableWind(at([0, -20]))).toBeNull();
    expect(usableWind(at([5, -Infinity]))).toBeNull();
  });
});

it('a tenth of the time exceeds: neither the quiet nor the loudest moment', () => {
  const steps = Float64Array.from({ length: 101 }, (_, i) => (i === 100 ? 1 : i / 1e4));
  // The 91st of 101 steps: 90/10⁴, as loudness 0.691 dB less.
  expect(exceededTenth(steps)).toBeCloseTo(10 * Math.log10(0.009) - 0.691, 1);
  expect(exceededTenth(new Float64Array())).toBe(-Infinity);
});
