import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evenly } from '../testing/evenly';
import { seededBits, uniform } from '../stats/random';
import { correlationPeak } from './cross-correlation';

const LENGTH = 2048;
const bits = seededBits('partials');
const PARTIALS = Array.from({ length: 200 }, () => ({
  cycles: 10 + 800 * uniform(bits),
  phase: 2 * Math.PI * uniform(bits),
}));

/** A sound of 200 partials under a bell, by its formula: it can begin at any part of a sample. */
const sound = (laterBy: number): Float64Array =>
  Float64Array.from({ length: LENGTH }, (_, n) => {
    const t = (n - laterBy) / LENGTH;
    const bell = Math.exp(-((t - 0.5) ** 2) / 0.01);
    return bell * PARTIALS.reduce((s, p) => s + Math.cos(2 * Math.PI * p.cycles * t + p.phase), 0);
  });

describe('lag of two signals', () => {
  it('is found between samples and on them, on either side, to a millionth of one', () => {
    fc.assert(
      fc.property(evenly(-200, 200), (lag) => {
        const { lag: found } = correlationPeak(sound(0), sound(lag), { isFine: true });
        expect(Math.abs(found - lag)).toBeLessThan(1e-6);
      }),
      { numRuns: 20, seed: 7, examples: [[0], [17], [-200], [150]] },
    );
  });

  it('is found of a signal that is turned over as well, and says so', () => {
    const { lag, coefficient } = correlationPeak(
      sound(0),
      sound(31.25).map((x) => -x),
      { isFine: true },
    );
    expect(Math.abs(lag - 31.25)).toBeLessThan(1e-6);
    expect(coefficient).toBeLessThan(-0.9);
  });

  it('is a whole number where nobody asks for more, and stays within what is allowed', () => {
    expect(correlationPeak(sound(0), sound(17)).lag).toBe(17);
    expect(correlationPeak(sound(0), sound(17.4)).lag).toBe(17);
    const { lag } = correlationPeak(sound(0), sound(17), { range: [-5, 5] });
    expect(Math.abs(lag)).toBeLessThanOrEqual(5);
  });

  it('of silence there is none', () => {
    expect(correlationPeak(new Float64Array(64), sound(0))).toEqual({ lag: 0, coefficient: 0 });
  });
});
