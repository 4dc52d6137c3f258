import { A_TOTAL, VALUES_PER_FRAME, Z_TOTAL } from '../dsp/band-power-frames';
import { THIRD_OCTAVE_BANDS } from '../dsp/third-octave-bands';
import { aWeightingPower } from '../dsp/weighting-curves';
import { trigamma } from '../stats/gamma';

/** Noise-equivalent length of a Hann window in a reading of power: (Σw²)²/Σw⁴ = (3/8)²/(35/128), as a share of it. */
const HANN_POWER_LENGTH = (3 / 8) ** 2 / (35 / 128);
/** Correlation of the powers of two neighbours at 50 % overlap: Σw²w₊²/Σw⁴ = (3/128)/(35/128). */
const HANN_NEIGHBOUR = 3 / 35;
const DB_PER_NEPER = 10 / Math.LN10;

/**
 * Standard uncertainty of a noise level that was read over a limited time: the power of Gaussian noise in a band B over
 * a time T has B·T independent readings (Bendat & Piersol, Random Data, "bandwidth-time product", from memory), and
 * noise of any colour the sum over its third octaves, 1/k = Σ (P_b/P)²/(B_b·T). The decibels of a power with k such
 * readings scatter by (10/ln 10)·√ψ′(k), the deviation of a logarithm of a gamma variable.
 *
 * @param powers - mean power by third octave, VALUES_PER_FRAME numbers; NaN and silent bands are passed over
 * @param weighting - whose total the level is
 * @param frames - Hann frames at 50 % overlap that were averaged
 * @param frameS - length of one, in seconds
 * @returns in dB; null where no band holds anything
 */
export function noiseScatterDb(
  powers: ArrayLike<number>,
  weighting: 'z' | 'a',
  frames: number,
  frameS: number,
): number | null {
  const total = powers[weighting === 'z' ? Z_TOTAL : A_TOTAL];
  if (!(total > 0) || frames < 1) return null;
  const seconds = (HANN_POWER_LENGTH * frameS * frames) / (1 + (2 * HANN_NEIGHBOUR * (frames - 1)) / frames);
  let variance = 0;
  THIRD_OCTAVE_BANDS.forEach(({ nominalHz, lowHz, highHz }, b) => {
    const power = powers[b] * (weighting === 'a' ? aWeightingPower(nominalHz) : 1);
    // A power that was itself estimated from k readings has a mean square larger by 1 + 1/k: hence the + 1.
    if (power > 0) variance += (power / total) ** 2 / ((highHz - lowHz) * seconds + 1);
  });
  return variance > 0 ? DB_PER_NEPER * Math.sqrt(trigamma(1 / variance)) : null;
}

/** Mean of every value over some frames, VALUES_PER_FRAME numbers. */
export const meanFrame = (bandFrames: Float64Array, frames: readonly number[]): Float64Array =>
  new Float64Array(VALUES_PER_FRAME).map((_, value) => meanValue(bandFrames, frames, value));

/** Mean of one of the values over some frames. */
export function meanValue(bandFrames: Float64Array, frames: readonly number[], value: number): number {
  let mean = 0;
  for (const frame of frames) mean += bandFrames[frame * VALUES_PER_FRAME + value] / frames.length;
  return mean;
}
