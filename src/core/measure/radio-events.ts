import { quantile } from '../stats/quantile';
import { powerToDb } from '../units';

/** Steps of the powers, per second. */
const STEPS_PER_SECOND = 10;
/** What rises by more above the quiet part of the take is heard as a burst (common practice, no source). */
export const BURST_DB = 6;
/** The quiet part: nine tenths of a take may be disturbed, and it is still found. */
const QUIET_SHARE = 0.1;
/** Bursts that are no further apart are one: a telephone sends in groups (common practice, no source). */
const APART_STEPS = 3;
const LEAST_S = 5;

/** Bursts in a take that should hold nothing but the noise of room and unit. */
export interface RadioEvents {
  readonly count: number;
  readonly perMinute: number;
  /** Standard uncertainty by their number alone (Poisson): √n, of none that of one. */
  readonly u: number;
  /** The loudest re the quiet part, dB; null where there is none. */
  readonly loudestDb: number | null;
}

/**
 * Bursts per minute in a recording without speech: stretches of steps louder than the quiet tenth of the take by more
 * than {@link BURST_DB}. What disturbs all the time is no burst; its lines are another figure.
 *
 * @param stepPowers - K-weighted mean squares in steps of 100 ms
 * @returns null for less than five seconds, and for a take without a quiet part of sound
 */
export function radioEvents(stepPowers: Float64Array): RadioEvents | null {
  const seconds = stepPowers.length / STEPS_PER_SECOND;
  if (seconds < LEAST_S) return null;
  const quiet = quantile(stepPowers, QUIET_SHARE);
  if (!(quiet > 0)) return null;
  const limit = quiet * 10 ** (BURST_DB / 10);
  let [count, last, loudest] = [0, -Infinity, 0];
  stepPowers.forEach((power, i) => {
    if (power <= limit) return;
    if (i - last > APART_STEPS) count++;
    last = i;
    loudest = Math.max(loudest, power);
  });
  const perMinute = 60 / seconds;
  return {
    count,
    perMinute: count * perMinute,
    u: Math.sqrt(Math.max(1, count)) * perMinute,
    loudestDb: count === 0 ? null : powerToDb(loudest / quiet),
  };
}
