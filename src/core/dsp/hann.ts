import { FramePairPlan } from './fft';

/**
 * Hann window, periodic (the form for spectra: the sample after the last would equal the first).
 *
 * @param length - samples
 * @returns the window, maximum 1
 */
export function hann(length: number): Float64Array {
  return Float64Array.from({ length }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length));
}

/** A transform under a Hann window, and the factor that makes its |X|² mean squares. */
export interface HannPlan {
  readonly fft: FramePairPlan;
  /** One-sided, window power compensated: the powers of all bins add up to the mean square of the signal. */
  readonly scale: number;
}

/** @param length - samples of a frame, a power of two, 64 or more */
export function hannPlan(length: number): HannPlan {
  const fft = new FramePairPlan(length);
  fft.window.set(hann(length));
  return { fft, scale: 2 / (length * fft.window.reduce((s, w) => s + w * w, 0)) };
}
