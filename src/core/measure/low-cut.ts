import { butterworthHighPassDb } from '../dsp/butterworth';

/** A high-pass that explains a difference. */
export interface LowCut {
  readonly cornerHz: number;
  /** Butterworth order, 1…4. */
  readonly order: number;
  /** Root mean square of what it leaves unexplained, in dB. */
  readonly residualDb: number;
}

/** Region in which a low-cut shows. */
const LOWEST_HZ = 20;
const HIGHEST_HZ = 1000;
const CORNERS_HZ = [30, 400] as const;
/** A high-pass must take this much off at the lowest trusted point … */
const LEAST_CUT_DB = 2;
/** … and explain this share of the variance that a plain level leaves. */
const LEAST_EXPLAINED = 0.8;

/**
 * Corner and order of the Butterworth high-pass that fits the low end of a difference best, its level left free.
 *
 * @param points - difference in dB over frequency, trusted points only, in rising order
 * @returns null where no high-pass explains the difference
 */
export function fitLowCut(points: readonly { readonly hz: number; readonly db: number }[]): LowCut | null {
  const low = points.filter((p) => p.hz >= LOWEST_HZ && p.hz <= HIGHEST_HZ);
  if (low.length < 6) return null;
  const flat = sumOfSquares(low, () => 0);
  let best: (LowCut & { readonly sum: number }) | null = null;
  for (let order = 1; order <= 4; order++) {
    for (let cornerHz = CORNERS_HZ[0]; cornerHz <= CORNERS_HZ[1]; cornerHz *= 1.01) {
      const sum = sumOfSquares(low, (hz) => butterworthHighPassDb(order, cornerHz, hz));
      if (!best || sum < best.sum) best = { cornerHz, order, residualDb: Math.sqrt(sum / low.length), sum };
    }
  }
  if (!best) return null;
  const cut = -butterworthHighPassDb(best.order, best.cornerHz, low[0].hz);
  const explains = best.sum <= (1 - LEAST_EXPLAINED) * flat;
  return cut >= LEAST_CUT_DB && explains
    ? { cornerHz: best.cornerHz, order: best.order, residualDb: best.residualDb }
    : null;
}

/** Squares of what a curve leaves, after the level that suits it best. */
function sumOfSquares(points: readonly { hz: number; db: number }[], curve: (hz: number) => number): number {
  const rest = points.map((p) => p.db - curve(p.hz));
  const mean = rest.reduce((s, r) => s + r, 0) / rest.length;
  return rest.reduce((s, r) => s + (r - mean) ** 2, 0);
}
