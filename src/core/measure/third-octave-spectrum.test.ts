import { expect, it } from 'vitest';
import { VALUES_PER_FRAME } from '../dsp/band-power-frames';
import { THIRD_OCTAVE_BANDS } from '../dsp/third-octave-bands';
import { meanOverFrames, thirdOctaveLevels } from './third-octave-spectrum';

/** Four frames: in every band 1, 2, 3 and 6, but none at 1 kHz, and the highest band not known. */
const ONE_KILOHERTZ = THIRD_OCTAVE_BANDS.findIndex((b) => b.nominalHz === 1000);
const FRAMES = Float64Array.from({ length: 4 * VALUES_PER_FRAME }, (_, i) => {
  const [frame, value] = [Math.floor(i / VALUES_PER_FRAME), i % VALUES_PER_FRAME];
  return value === ONE_KILOHERTZ ? 0 : value === THIRD_OCTAVE_BANDS.length - 1 ? NaN : [1, 2, 3, 6][frame] * 1e-6;
});
const dbfs = (meanSquare: number): number => 10 * Math.log10(2 * meanSquare);

const levels = (from: number, to: number) => thirdOctaveLevels(meanOverFrames(FRAMES, from, to));

it('is the mean power of the frames from one to another', () => {
  expect(levels(0, 4)[0].levelDbfs).toBeCloseTo(dbfs(3e-6), 9);
  expect(levels(1, 3)[0].levelDbfs).toBeCloseTo(dbfs(2.5e-6), 9);
  expect(levels(3, 4)[0].levelDbfs).toBeCloseTo(dbfs(6e-6), 9);
  // The totals behind the bands as well.
  expect(meanOverFrames(FRAMES, 2, 4)).toHaveLength(VALUES_PER_FRAME);
  expect(meanOverFrames(FRAMES, 2, 4)[VALUES_PER_FRAME - 1]).toBeCloseTo(4.5e-6, 15);
});

it('names bands by their nominal centres; one that holds nothing, or is not known, has no level', () => {
  const found = levels(0, 4);
  expect(found.map((b) => b.centreHz)).toEqual(THIRD_OCTAVE_BANDS.map((b) => b.nominalHz));
  expect([found[ONE_KILOHERTZ].levelDbfs, found.at(-1)?.levelDbfs]).toEqual([null, null]);
});

it('is no number where no frame lies in the range', () => {
  expect([...meanOverFrames(FRAMES, 2, 2), ...meanOverFrames(new Float64Array(), 0, 0)].every(Number.isNaN)).toBe(true);
});
