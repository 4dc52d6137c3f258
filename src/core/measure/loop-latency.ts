import { correlationPeak } from '../dsp/cross-correlation';

/** Two channels of one recording: what was sent, and what came back. */
export interface LoopLatency {
  readonly seconds: number;
  readonly samples: number;
  /** Correlation coefficient; the sign tells whether the loop turns the polarity over. */
  readonly coefficient: number;
}

/** Below this, what came back is not what was sent. */
const LEAST_COEFFICIENT = 0.3;

/**
 * Delay of a loop, between samples, from a recording with the sent signal on one channel and the returned one on the
 * other (a click, a burst, noise): position of the peak of their cross-correlation.
 *
 * @param sent - first channel, full scale ±1
 * @param returned - second channel, equally long
 * @param sampleRate - in hertz
 * @returns null where the two do not belong together
 */
export function loopLatency(sent: Float64Array, returned: Float64Array, sampleRate: number): LoopLatency | null {
  const { lag, coefficient } = correlationPeak(sent, returned, { isFine: true });
  if (Math.abs(coefficient) < LEAST_COEFFICIENT) return null;
  return { seconds: lag / sampleRate, samples: lag, coefficient };
}
