import { quantile } from '../stats/quantile';
import { powerToDb } from '../units';

/** Wind that is louder than this re speech, A-weighted, hides it (common practice, no source). */
export const WIND_LIMIT_DB = -10;

/** Wind noise at one speed. */
export interface WindReading {
  readonly speedMs: number;
  /** A-weighted, re speech, dB. */
  readonly aDb: number;
}

/** Highest speed of the wind at which speech still stands clear of it. */
export interface UsableWind {
  readonly speedMs: number;
  readonly bound: 'exact' | 'at-least' | 'at-most';
}

/**
 * Highest speed of the wind that stays under a limit re speech: between two readings by the line through them over the
 * logarithm of the speed, since turbulent pressure is a power of it; a limit where all readings lie on one side.
 *
 * @param readings - any order; of one speed the loudest counts
 * @param limitDb - A-weighted re speech
 * @returns null without a reading at a speed above zero
 */
export function usableWind(readings: readonly WindReading[], limitDb = WIND_LIMIT_DB): UsableWind | null {
  const loudest = new Map<number, number>();
  for (const { speedMs, aDb } of readings)
    if (speedMs > 0 && Number.isFinite(aDb)) loudest.set(speedMs, Math.max(aDb, loudest.get(speedMs) ?? -Infinity));
  const rising = [...loudest].sort(([a], [b]) => a - b);
  if (rising.length === 0) return null;
  const over = rising.findIndex(([, aDb]) => aDb > limitDb);
  if (over === -1) return { speedMs: rising[rising.length - 1][0], bound: 'at-least' };
  if (over === 0) return { speedMs: rising[0][0], bound: 'at-most' };
  const [[lowMs, lowDb], [highMs, highDb]] = [rising[over - 1], rising[over]];
  const share = (limitDb - lowDb) / (highDb - lowDb);
  return { speedMs: lowMs * (highMs / lowMs) ** share, bound: 'exact' };
}

/**
 * Level that a tenth of the time exceeds: what rubs now and then, without the loudest moment.
 *
 * @param stepPowers - K-weighted power in steps of 100 ms
 * @returns LUFS of that step; −∞ for digital silence
 */
export function exceededTenth(stepPowers: Float64Array): number {
  // −0.691 dB makes K-weighted power a loudness (ITU-R BS.1770-5).
  return stepPowers.length === 0 ? -Infinity : powerToDb(quantile(stepPowers, 0.9)) - 0.691;
}
