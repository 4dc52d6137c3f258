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
 * Long-term spectrum by Welch's method (Hann, 50 % overlap), mean power of the frames, in third octaves.
 *
 * @param bandFrames - VALUES_PER_FRAME numbers per frame
 * @param from - first frame
 * @param to - first frame not to count; beyond the end means to the end
 * @returns one entry per band; empty where no frame is in the range
 */
export function thirdOctaveSpectrum(bandFrames: Float64Array, from: number, to: number): BandLevel[] {
  const end = Math.min(to, bandFrames.length / VALUES_PER_FRAME);
  if (end <= from) return [];
  return THIRD_OCTAVE_BANDS.map(({ nominalHz }, b) => {
    const level = meanSquareToDbfs(meanOverFrames(bandFrames, b, from, end));
    return { centreHz: nominalHz, levelDbfs: Number.isFinite(level) ? level : null };
  });
}

/** Mean of one of the values per frame, over frames `from` to `to` (exclusive). */
export function meanOverFrames(bandFrames: Float64Array, value: number, from: number, to: number): number {
  let sum = 0;
  for (let f = from; f < to; f++) sum += bandFrames[f * VALUES_PER_FRAME + value];
  return sum / (to - from);
}
