import { VALUES_PER_FRAME } from '../dsp/band-power-frames';
import { THIRD_OCTAVE_BANDS } from '../dsp/third-octave-bands';
import { meanSquareToDbfs } from '../units';

/** Level in one third-octave band. */
export interface BandLevel {
  /** Nominal centre in hertz. */
  readonly centreHz: number;
  /** AES17: a full-scale sine inside the band reads 0. Null where the band reaches above half the sample rate. */
  readonly levelDbfs: number | null;
}

/**
 * Mean of every value over frames `from` to `to` (exclusive): of Welch's method (Hann, 50 % overlap), mean powers. All
 * are summed in one walk over the frames.
 *
 * @param bandFrames - VALUES_PER_FRAME numbers per frame
 * @param from - first frame
 * @param to - first frame not to count
 * @returns VALUES_PER_FRAME numbers; NaN where no frame is in the range
 */
export function meanOverFrames(bandFrames: Float64Array, from: number, to: number): Float64Array {
  const means = new Float64Array(VALUES_PER_FRAME);
  for (let at = from * VALUES_PER_FRAME; at < to * VALUES_PER_FRAME; at += VALUES_PER_FRAME)
    for (let v = 0; v < VALUES_PER_FRAME; v++) means[v] += bandFrames[at + v];
  for (let v = 0; v < VALUES_PER_FRAME; v++) means[v] /= to - from;
  return means;
}

/**
 * Levels of powers by third octave.
 *
 * @param powers - mean squares by third octave, VALUES_PER_FRAME numbers
 * @returns one entry per band
 */
export const thirdOctaveLevels = (powers: ArrayLike<number>): BandLevel[] =>
  THIRD_OCTAVE_BANDS.map(({ nominalHz }, b) => {
    const level = meanSquareToDbfs(powers[b]);
    return { centreHz: nominalHz, levelDbfs: Number.isFinite(level) ? level : null };
  });
