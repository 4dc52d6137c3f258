import { correlationPeak } from '../dsp/cross-correlation';

/** Signals up to this many samples together are correlated whole; longer ones first by their envelopes. */
const WHOLE_SAMPLES = 2 ** 20;
/** Envelope: RMS of 5 ms. */
const ENVELOPE_S = 0.005;
/** Stretch of a long clip that is correlated sample by sample once the envelopes have met. */
const STRETCH_SAMPLES = 2 ** 18;
/** The envelopes leave this much open. */
const COARSE_S = 0.03;
/** Two recordings of one performance correlate at least this well after pre-emphasis; two readings of one text do not. */
const SAME_PERFORMANCE = 0.35;

/** How two clips lie to each other. */
export interface Alignment {
  /** Seconds by which the second clip comes later. */
  readonly lagS: number;
  /** The same performance (aligned between samples), or only the same text (aligned by loudness over time). */
  readonly isSamePerformance: boolean;
  /** Correlation coefficient of the waveforms (same performance) or of the envelopes. */
  readonly coefficient: number;
}

/**
 * Aligns two takes of one performance or of one text.
 *
 * @param a - first clip, one channel
 * @param b - second clip, one channel
 * @param sampleRate - of both, in hertz
 */
export function align(a: Float64Array, b: Float64Array, sampleRate: number): Alignment {
  const envelopes = [a, b].map((x) => envelope(x, Math.round(ENVELOPE_S * sampleRate)));
  const coarse = correlationPeak(envelopes[0], envelopes[1]);
  const coarseLagS = coarse.lag * ENVELOPE_S;
  const fine =
    a.length + b.length <= WHOLE_SAMPLES
      ? correlationPeak(emphasised(a), emphasised(b), { isFine: true })
      : stretchPeak(a, b, Math.round(coarseLagS * sampleRate), sampleRate);
  return Math.abs(fine.coefficient) >= SAME_PERFORMANCE
    ? { lagS: fine.lag / sampleRate, isSamePerformance: true, coefficient: Math.abs(fine.coefficient) }
    : { lagS: coarseLagS, isSamePerformance: false, coefficient: Math.abs(coarse.coefficient) };
}

function stretchPeak(a: Float64Array, b: Float64Array, coarseLag: number, sampleRate: number) {
  const margin = Math.round(COARSE_S * sampleRate);
  const start = loudestStretch(a, coarseLag, b.length);
  const first = emphasised(a.subarray(start, start + STRETCH_SAMPLES));
  const from = Math.max(0, start + coarseLag - margin);
  const second = emphasised(b.subarray(from, from + STRETCH_SAMPLES + 2 * margin));
  const offset = from - start;
  const peak = correlationPeak(first, second, {
    range: [coarseLag - margin - offset, coarseLag + margin - offset],
    isFine: true,
  });
  return { lag: peak.lag + offset, coefficient: peak.coefficient };
}

/** Start of the stretch with the most energy that the other clip covers as well. */
function loudestStretch(a: Float64Array, lag: number, otherLength: number): number {
  let best = 0;
  let most = -1;
  const step = STRETCH_SAMPLES / 4;
  for (let from = 0; from + step <= a.length; from += step) {
    if (from + lag < 0 || from + lag + STRETCH_SAMPLES > otherLength) continue;
    let sum = 0;
    for (const x of a.subarray(from, from + STRETCH_SAMPLES)) sum += x * x;
    if (sum > most) {
      most = sum;
      best = from;
    }
  }
  return best;
}

/** Difference from sample to sample: without it the lows decide alone, and their peak is broad. */
function emphasised(x: Float64Array): Float64Array {
  const steps = new Float64Array(x.length);
  for (let i = 1; i < x.length; i++) steps[i] = x[i] - x[i - 1];
  return steps;
}

/** Fourth root of the power per piece, mean removed: loud moments do not decide alone. */
function envelope(x: Float64Array, piece: number): Float64Array {
  const values = new Float64Array(Math.max(1, Math.floor(x.length / piece)));
  for (let i = 0; i < values.length; i++) {
    let sum = 0;
    for (const v of x.subarray(i * piece, (i + 1) * piece)) sum += v * v;
    values[i] = sum ** 0.25;
  }
  const mean = values.reduce((s, v) => s + v, 0) / values.length;
  return values.map((v) => v - mean);
}
