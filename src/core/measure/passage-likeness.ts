import { mean } from '../stats/moments';
import { powerToDb } from '../units';
import { lufsToPower } from './integrated-loudness';

/** Points to which the course of a passage is brought. */
const POINTS = 120;
/** How far one reading may run ahead: more would let any text be bent into any other (labelled takes in the tests). */
const BAND_SHARE = 1 / 60;
/** Nothing below this counts, re the loudest step. */
const RANGE_DB = 30;

/**
 * How alike two readings of one text are, by the course of their loudness: both are trimmed to their speech, brought to
 * equal length, and compared by Pearson's correlation under the best stretching in time (dynamic time warping after
 * Sakoe & Chiba 1978, within a narrow band).
 *
 * @param a - K-weighted power in steps of 100 ms
 * @param b - the same of the other reading
 * @returns −1…1; null where one of them holds no sound
 */
export function passageLikeness(a: Float64Array, b: Float64Array): number | null {
  const [x, y] = [course(a), course(b)];
  if (!x || !y) return null;
  return correlation(warped(x, y), y);
}

/** Loudness over time, trimmed and brought to a fixed number of points, in decibels re the loudest step. */
function course(powers: Float64Array): Float64Array | null {
  const loudest = powers.reduce((m, p) => Math.max(m, p), 0);
  if (loudest < lufsToPower(-70)) return null;
  const levels = Float64Array.from(powers, (p) => Math.max(-RANGE_DB, powerToDb(p / loudest + 1e-12)));
  const isLoud = (l: number): boolean => l > -0.7 * RANGE_DB;
  const start = levels.findIndex(isLoud);
  const end = levels.length - [...levels].reverse().findIndex(isLoud);
  if (end - start < 3) return null;
  return Float64Array.from({ length: POINTS }, (_, i) => {
    const at = start + (i * (end - 1 - start)) / (POINTS - 1);
    const low = Math.floor(at);
    const share = at - low;
    return levels[low] * (1 - share) + levels[Math.min(levels.length - 1, low + 1)] * share;
  });
}

/** The first course, bent in time to lie best on the second. */
function warped(x: Float64Array, y: Float64Array): Float64Array {
  const n = y.length;
  const band = Math.ceil(BAND_SHARE * n);
  const cost = Array.from({ length: n }, () => new Float64Array(n).fill(Infinity));
  for (let i = 0; i < n; i++) {
    for (let j = Math.max(0, i - band); j < Math.min(n, i + band + 1); j++) {
      const own = (x[j] - y[i]) ** 2;
      const before =
        i === 0 && j === 0
          ? 0
          : Math.min(
              i > 0 ? cost[i - 1][j] : Infinity,
              j > 0 ? cost[i][j - 1] : Infinity,
              i > 0 && j > 0 ? cost[i - 1][j - 1] : Infinity,
            );
      cost[i][j] = own + before;
    }
  }
  const bent = new Float64Array(n);
  for (let i = n - 1, j = n - 1; i >= 0;) {
    bent[i] = x[j];
    const diagonal = i > 0 && j > 0 ? cost[i - 1][j - 1] : Infinity;
    const up = i > 0 ? cost[i - 1][j] : Infinity;
    const left = j > 0 ? cost[i][j - 1] : Infinity;
    if (diagonal <= up && diagonal <= left) {
      i--;
      j--;
    } else if (up <= left) i--;
    else j--;
    if (i < 0 || j < 0) break;
  }
  return bent;
}

/** What a course that never changes comes to by rounding stays far below this, in dB². */
const FLAT = 1e-9;

function correlation(x: Float64Array, y: Float64Array): number | null {
  const [mx, my] = [mean(x), mean(y)];
  let [xy, xx, yy] = [0, 0, 0];
  for (let i = 0; i < x.length; i++) {
    xy += (x[i] - mx) * (y[i] - my);
    xx += (x[i] - mx) ** 2;
    yy += (y[i] - my) ** 2;
  }
  return xx > FLAT && yy > FLAT ? xy / Math.sqrt(xx * yy) : null;
}
