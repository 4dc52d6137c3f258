import type { FramePairPlan } from './fft';
import { LONGEST_SHARED, sharedFramePairPlan } from './shared-plan';
import { fillCosines } from './twiddle-factors';

/**
 * Hann window, periodic (the form for spectra: the sample after the last would equal the first).
 *
 * @param length - samples
 * @returns the window, maximum 1
 */
export function hann(length: number): Float64Array {
  const window = new Float64Array(length);
  for (let i = 0; i < length; i++) window[i] = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length);
  return window;
}

/** The same for a power of two, of the cosines that its transform needs anyway. */
function hannOfFrame(length: number): Float64Array {
  const quarter = length / 4;
  const cosines = new Float64Array(quarter);
  fillCosines(cosines, length);
  const window = new Float64Array(length);
  for (let i = 0; i < quarter; i++) {
    const cos = 0.5 * cosines[i];
    const sin = i === 0 ? 0 : 0.5 * cosines[quarter - i];
    window[i] = 0.5 - cos;
    window[quarter + i] = 0.5 + sin;
    window[2 * quarter + i] = 0.5 + cos;
    window[3 * quarter + i] = 0.5 - sin;
  }
  return window;
}

/** A transform under a Hann window, and the factor that makes its |X|² mean squares. */
export interface HannPlan {
  readonly fft: FramePairPlan;
  /** One-sided, window power compensated: the powers of all bins add up to the mean square of the signal. */
  readonly scale: number;
}

/**
 * Of a plan that others share: its tables cost more than the transforms of a short take. Whoever uses it is done with it
 * before anybody else can ask.
 *
 * @param length - samples of a frame, a power of two, 64 or more
 */
export function sharedHannPlan(length: number): HannPlan {
  const { window, scale } = hannPower(length);
  return { fft: sharedFramePairPlan(length, window), scale };
}

/** A periodic Hann window, and the factor that makes |X|² under it one-sided mean squares. */
export interface HannPower {
  readonly window: Float64Array;
  readonly scale: number;
}
/** Made once per thread for each length; those of short frames and long ones come to some megabytes. */
const known = new Map<number, HannPower>();

/** @param length - samples, a power of two, 16 or more */
export function hannPower(length: number): HannPower {
  const found = known.get(length);
  if (found) return found;
  // The squares of the window add up to three eighths of its length.
  const made = { window: hannOfFrame(length), scale: 2 / (length * 0.375 * length) };
  if (length <= LONGEST_SHARED) known.set(length, made);
  return made;
}
