import { sweepRate, type SweepShape } from '../dsp/exponential-sweep';
import type { ImpulseResponse } from './impulse-response';

/** Harmonics up to this order may be there; before them the response holds noise alone. */
const HIGHEST_HARMONIC = 8;

/** Where a response to a sweep holds noise alone. */
export interface QuietPlaces {
  /** Sample for frequencies below `splitHz`: late behind the direct sound. */
  readonly low: number;
  /** Sample for frequencies from `splitHz` on: before the harmonics. */
  readonly high: number;
  readonly splitHz: number;
}

/**
 * Noise of a recording, as the response to a sweep holds it. What was recorded at the moment t stands, at a frequency
 * that the sweep passes at t(f), t − t(f) behind the direct sound: high frequencies have noise before the harmonics, up
 * to t(f) early, and little behind the direct sound, where the recording had ended; low ones have it behind.
 *
 * @param response - from a recorded sweep
 * @param lengthS - length of the stretch that is to be cut out around the place
 */
export function quietPlaces(response: ImpulseResponse, lengthS: number): QuietPlaces {
  const { sweep, sampleRate, peak, recordedS, samples } = response;
  const rate = sweepRate(sweep);
  const early = rate * Math.log(HIGHEST_HARMONIC) + lengthS / 2;
  const splitS = Math.min(early + lengthS, 0.7 * sweep.seconds);
  const reachS = Math.min(recordedS - peak / sampleRate - splitS, samples.length / 2 / sampleRate);
  const late = Math.max(reachS - lengthS, 0.6 * reachS);
  return {
    low: peak + Math.round(late * sampleRate),
    high: peak - Math.round(Math.min(early, splitS) * sampleRate),
    splitHz: frequencyAt(sweep, splitS),
  };
}

/** Frequency that a sweep passes at a moment. */
const frequencyAt = (sweep: SweepShape, seconds: number): number => sweep.lowHz * Math.exp(seconds / sweepRate(sweep));
