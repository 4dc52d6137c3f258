import { describe, expect, it } from 'vitest';
import { itu468Power } from './itu468-weighting';
import { quasiPeak } from './quasi-peak';
import { spectralFilter } from './spectral-filter';
import { itu468Gain } from './itu468-weighting';
import { lcgNoise, sine } from '../testing/signals';

// ITU-R BS.468-4 table 1 (response of the weighting network) with its tolerances, from memory.
describe('the 468 weighting network, table 1', () => {
  it.each([
    [31.5, -29.9, 2],
    [63, -23.9, 1.4],
    [100, -19.8, 1],
    [200, -13.8, 0.85],
    [400, -7.8, 0.7],
    [800, -1.9, 0.55],
    [1000, 0, 0.5],
    [2000, 5.6, 0.5],
    [3150, 9.0, 0.5],
    [4000, 10.5, 0.5],
    [5000, 11.7, 0.5],
    [6300, 12.2, 0.2],
    [7100, 12.0, 0.2],
    [8000, 11.4, 0.4],
    [9000, 10.1, 0.6],
    [10_000, 8.1, 0.8],
    [12_500, 0, 1.2],
    [14_000, -5.3, 1.4],
    [16_000, -11.7, 1.6],
    [20_000, -22.2, 2],
  ])('%d Hz: %d ±%d dB', (hz, expected, tolerance) => {
    expect(Math.abs(10 * Math.log10(itu468Power(hz)) - expected)).toBeLessThanOrEqual(tolerance / 2);
  });

  it('filters samples by that curve up to high frequencies, at 44.1 and 48 kHz', () => {
    for (const rate of [44_100, 48_000]) {
      for (const hz of [200, 1000, 6300, 14_000]) {
        const out = spectralFilter(sine(hz, 0, 1, rate), rate, itu468Gain).subarray(rate / 5, (4 * rate) / 5);
        const rms = 10 * Math.log10(2 * (out.reduce((s, x) => s + x * x, 0) / out.length));
        expect(rms).toBeCloseTo(10 * Math.log10(itu468Power(hz)), 1);
      }
    }
  });
});

describe('the spectral filter', () => {
  const rate = 48_000;
  const long = lcgNoise(400_000, 0.5);
  /** Second-order low-pass at 300 Hz, Q 1: 1 / (1 − x² + j·x). */
  const oneSection = (f: number): { re: number; im: number } => {
    const x = f / 300;
    const [a, b] = [1 - x * x, x];
    return { re: a / (a * a + b * b), im: -b / (a * a + b * b) };
  };

  // Blocks against the same samples in pieces that are filtered at once: they agree wherever a piece has its surroundings.
  it.each([
    // The weighting ends at half the sample rate, 25 dB down and with a phase, so that what rings on from there falls as
    // 1/n only: −80 dB re the noise where a piece was cut, which moves a quasi-peak reading by less than 1e-6 dB.
    ['of the weighting', itu468Gain, 1e-4],
    // So does this one, 76 dB down; the next leaves out −120 dB of ringing, and the last rounds.
    ['with a phase of its own', oneSection, 1e-7],
    ['without delay', (f: number) => ({ re: 1 / (1 + (f / 1000) ** 6), im: 0 }), 1e-9],
    ['that does nothing', () => ({ re: 1, im: 0 }), 1e-12],
  ])('gives in blocks what it gives at once, a filter %s', (_, gain, tolerance) => {
    const inBlocks = spectralFilter(long, rate, gain);
    for (const from of [0, 50_000, 200_000]) {
      const atOnce = spectralFilter(long.subarray(from, from + 200_000), rate, gain);
      let worst = 0;
      const margin = 10_000;
      for (let i = from === 0 ? 0 : margin; i < (from === 200_000 ? 200_000 : 200_000 - margin); i++) {
        worst = Math.max(worst, Math.abs(atOnce[i] - inBlocks[from + i]));
      }
      expect(worst, `from ${from}`).toBeLessThan(tolerance);
    }
  });
});

// Tables 2 and 3 of the same: readings of bursts of 5 kHz re the steady tone, in per cent, with lower and upper limit
// (from memory; the detector's constants were fitted to the middle column, the limits decide).
describe('the quasi-peak detector', () => {
  const rate = 48_000;
  const steady = quasiPeak(sine(5000, 0, 3), rate);
  const burst = (ms: number): Float64Array => {
    const out = new Float64Array(rate);
    out.set(sine(5000, 0, ms / 1000));
    return out;
  };
  it.each([
    [1, 13.5, 21.4],
    [2, 22.4, 31.6],
    [5, 34, 46],
    [10, 41, 55],
    [20, 44, 60],
    [50, 50, 68],
    [100, 58, 78],
    [200, 68, 92],
  ])('a single burst of %i ms reads %d to %d %%', (ms, low, high) => {
    const reading = (100 * quasiPeak(burst(ms), rate)) / steady;
    expect(reading).toBeGreaterThanOrEqual(low);
    expect(reading).toBeLessThanOrEqual(high);
  });
  it.each([
    [2, 43, 53],
    [10, 72, 82],
    [100, 94, 100],
  ])('bursts of 5 ms, %i a second, read %d to %d %%', (perSecond, low, high) => {
    const train = new Float64Array(4 * rate);
    for (let at = 0; at < train.length; at += rate / perSecond) train.set(sine(5000, 0, 0.005), at);
    const reading = (100 * quasiPeak(train, rate)) / steady;
    expect(reading).toBeGreaterThanOrEqual(low);
    expect(reading).toBeLessThanOrEqual(high);
  });
  it('a steady sine reads its RMS', () => {
    expect(quasiPeak(sine(1000, 0, 3), rate)).toBeCloseTo(Math.SQRT1_2, 3);
    expect(quasiPeak(sine(1000, -40, 3, 96_000), 96_000)).toBeCloseTo(Math.SQRT1_2 / 100, 5);
  });
  it.each([44_100, 48_000, 88_200, 96_000, 176_400, 192_000, 32_000])(
    'its scale is what four seconds of a sine at %i Hz read',
    (rateHz) => {
      const tone = Float64Array.from(
        { length: rateHz },
        (_, i) => Math.SQRT2 * Math.sin((2 * Math.PI * 1000 * i) / rateHz),
      );
      const seconds = new Float64Array(4 * rateHz);
      for (let s = 0; s < 4; s++) seconds.set(tone, s * rateHz);
      // What was read beforehand stands in a table, to its last digit.
      expect(quasiPeak(seconds, rateHz)).toBeCloseTo(1, 14);
    },
  );
});
