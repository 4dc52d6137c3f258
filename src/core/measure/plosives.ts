import { joinedFloats } from '../dsp/float-pieces';
import { FRAMES_PER_SECOND } from '../dsp/frame-power';
import { mean, standardDeviation } from '../stats/moments';
import { quantileSorted } from '../stats/quantile';
import { amplitudeToDb } from '../units';
import { measured, notMeasured, type Measurement } from './measurement';
import type { Segment } from './speech-segments';

/** A burst must stand this far above the median of its own band while somebody speaks (common practice, no source). */
const LEAST_ABOVE_MEDIAN_DB = 12;
/** And come up within this time: puffs are sudden, a deep voice is not. */
const RISE_S = 0.08;
const LEAST_RISE_DB = 9;
/** Two puffs nearer to each other are one. */
const SAME_BURST_S = 0.12;

/** A puff of air that hit the capsule. */
export interface Plosive {
  readonly atS: number;
  /** Peak at 20–120 Hz, 20·lg re full scale. */
  readonly peakDbfs: number;
}

/**
 * Bursts at 20–120 Hz during speech that come up suddenly.
 *
 * @param peaks - largest magnitude at 20–120 Hz per frame of 20 ms, highest channel
 * @param speech - where somebody speaks
 */
export function plosives(peaks: Float64Array, speech: readonly Segment[]): Plosive[] {
  const frame = (s: number): number => Math.min(peaks.length, Math.round(s * FRAMES_PER_SECOND));
  const phrases = speech.map(({ startS, endS }) => peaks.subarray(frame(startS), frame(endS)));
  const inSpeech = joinedFloats(phrases);
  if (inSpeech.length === 0) return [];
  const median = quantileSorted(inSpeech.sort(), 0.5);
  const least = median * 10 ** (LEAST_ABOVE_MEDIAN_DB / 20);
  const rise = Math.round(RISE_S * FRAMES_PER_SECOND);
  const apart = Math.round(SAME_BURST_S * FRAMES_PER_SECOND);
  const found: Plosive[] = [];
  let last = -Infinity;
  for (const { startS, endS } of speech) {
    const end = frame(endS);
    // The puff reaches the capsule before the voice that follows it is loud enough to count as speech.
    for (let i = Math.max(rise, frame(startS) - apart); i < end; i++) {
      const isPeak = peaks[i] >= least && peaks[i] >= peaks[i - 1] && peaks[i] >= (peaks[i + 1] ?? 0);
      if (!isPeak || i - last < apart) continue;
      if (amplitudeToDb(peaks[i] / (Math.min(...peaks.subarray(i - rise, i)) + 1e-12)) < LEAST_RISE_DB) continue;
      found.push({ atS: i / FRAMES_PER_SECOND, peakDbfs: amplitudeToDb(peaks[i]) });
      last = i;
    }
  }
  return found;
}

/**
 * Peak level of the bursts (mean over them in dB) re the loudness of the speech.
 *
 * @param bursts - detected, or marked by hand
 * @param speechLufs - gated loudness of the same clip
 */
export function plosiveMeasurement(bursts: readonly Plosive[], speechLufs: number): Measurement {
  const condition = 'peak at 20–120 Hz of each burst, mean of the bursts, re gated speech loudness';
  if (!Number.isFinite(speechLufs)) return notMeasured('plosives', condition, 'The clip holds no speech.');
  if (bursts.length === 0) return notMeasured('plosives', condition, 'No burst was found.');
  const levels = bursts.map((b) => b.peakDbfs - speechLufs);
  const sd = levels.length < 2 ? null : standardDeviation(levels);
  return measured('plosives', mean(levels), condition, {
    spread: sd === null ? null : { sd, count: levels.length, of: 'bursts' },
    uncertainty: sd === null ? null : sd / Math.sqrt(levels.length),
    settings: { bursts: bursts.length, strongestDb: Math.max(...levels) },
  });
}
