import { expect, it } from 'vitest';
import { A_TOTAL, VALUES_PER_FRAME, Z_TOTAL } from '../dsp/band-power-frames';
import { THIRD_OCTAVE_BANDS } from '../dsp/third-octave-bands';
import { aWeightingPower } from '../dsp/weighting-curves';
import { meanFrame, noiseScatterDb } from './noise-scatter';

/** Powers by nominal frequency, with the totals of both weightings. */
function powersOf(bands: Readonly<Record<number, number>>): Float64Array {
  const powers = new Float64Array(VALUES_PER_FRAME);
  THIRD_OCTAVE_BANDS.forEach(({ nominalHz }, b) => {
    powers[b] = bands[nominalHz] ?? 0;
    powers[Z_TOTAL] += powers[b];
    powers[A_TOTAL] += powers[b] * aWeightingPower(nominalHz);
  });
  return powers;
}

// A mean of k independent powers scatters by 1/√k, in decibels by 10/ln 10 of that where k is large (Bendat & Piersol).
const scatter = (k: number): number => 10 / Math.LN10 / Math.sqrt(k);
const widthOf = (hz: number): number => {
  const band = THIRD_OCTAVE_BANDS.find((b) => b.nominalHz === hz);
  return band ? band.highHz - band.lowHz : NaN;
};
/** Seconds that frames of a third of a second tell as much as: Σw² squared over Σw⁴ of a Hann window, twice 3/35 shared. */
const seconds = (frames: number): number =>
  (((3 / 8) ** 2 / (35 / 128)) * frames) / 3 / (1 + ((6 / 35) * (frames - 1)) / frames);

it('of one band is that of its bandwidth times its time, under either weighting', () => {
  for (const weighting of ['z', 'a'] as const)
    for (const frames of [1, 50]) {
      const told = noiseScatterDb(powersOf({ 4000: 1e-6 }), weighting, frames, 1 / 3) ?? NaN;
      // Half a reading and the curve of the logarithm: less than 1 % of some 160 readings.
      expect(told / scatter(widthOf(4000) * seconds(frames))).toBeCloseTo(1, 2);
    }
});

it('of two bands is that of the stronger one where it rules: low ones unweighted, high ones A-weighted', () => {
  // 63 Hz is 26.2 dB down by A, so 20 dB above 4 kHz it still lies below it.
  const rumble = powersOf({ 63: 1e-5, 4000: 1e-7 });
  const z = noiseScatterDb(rumble, 'z', 400, 1 / 3) ?? NaN;
  const a = noiseScatterDb(rumble, 'a', 400, 1 / 3) ?? NaN;
  expect(z / scatter(widthOf(63) * seconds(400))).toBeCloseTo(1 / 1.01, 2);
  expect(a).toBeLessThan(z / 2);
});

it('is none where nothing sounds', () => {
  expect(noiseScatterDb(powersOf({}), 'z', 10, 1 / 3)).toBeNull();
  expect(noiseScatterDb(powersOf({ 1000: 1 }), 'z', 0, 1 / 3)).toBeNull();
});

it('the mean frame is that of the frames that are named', () => {
  const all = new Float64Array(3 * VALUES_PER_FRAME).map((_, i) => i);
  const mean = meanFrame(all, [0, 2]);
  expect([...mean]).toEqual(Array.from({ length: VALUES_PER_FRAME }, (_, v) => v + VALUES_PER_FRAME));
});
