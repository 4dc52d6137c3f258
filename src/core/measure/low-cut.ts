import { butterworthHighPassDb } from '../dsp/butterworth';

/** A high-pass that explains a difference. */
export interface LowCut {
  readonly cornerHz: number;
  /** Butterworth order, 1…4. */
  readonly order: number;
  /** Root mean square of what it leaves unexplained, in dB. */
  readonly residualDb: number;
}

/** What a difference says of a hidden low-cut. */
export type LowCutVerdict =
  | (LowCut & {
      readonly kind: 'found';
      /** Standard uncertainty of the corner, in hertz: how it moves from part to part of the material. */
      readonly cornerU: number;
      /** Lowest and highest order that the parts agree with. */
      readonly orders: readonly [number, number];
    })
  | { readonly kind: 'none' }
  /** The material cannot tell, and why. */
  | { readonly kind: 'untold'; readonly reason: string };

type Points = readonly { readonly hz: number; readonly db: number }[];

/** Region in which a low-cut shows. */
const LOWEST_HZ = 20;
const HIGHEST_HZ = 1000;
const CORNERS_HZ = [30, 400] as const;
/** A high-pass must take this much off at the lowest trusted point … */
const LEAST_CUT_DB = 2;
/** … and explain this share of the variance that a plain level leaves. */
const LEAST_EXPLAINED = 0.8;
/** Corners of the two halves of the material further apart than this ratio, and than their scatter, are no agreement. */
const LARGEST_RATIO = 1.25;
/** Where the low end moves by more from part to part, a gentle low-cut could hide in it. */
const LARGEST_SCATTER_DB = 1.5;
/** A cut of that scatter could hide up to this frequency. */
const LOW_END_HZ = 160;

/** High-passes that are held against a difference: corners on a grid of 1 %. */
const CANDIDATES: readonly { readonly order: number; readonly cornerHz: number }[] = [1, 2, 3, 4].flatMap((order) => {
  const corners: { order: number; cornerHz: number }[] = [];
  for (let cornerHz = CORNERS_HZ[0]; cornerHz <= CORNERS_HZ[1]; cornerHz *= 1.01) corners.push({ order, cornerHz });
  return corners;
});

/** What each candidate takes off at a frequency: of bands there are a few dozen, and they are asked for again and again. */
const curves = new Map<number, Float64Array>();
function curvesAt(hz: number): Float64Array {
  const known = curves.get(hz);
  if (known) return known;
  const made = Float64Array.from(CANDIDATES, ({ order, cornerHz }) => butterworthHighPassDb(order, cornerHz, hz));
  if (curves.size < MOST_FREQUENCIES) curves.set(hz, made);
  return made;
}
/** More than the bands of a difference below 1 kHz; 8 KB each. */
const MOST_FREQUENCIES = 256;

/**
 * Corner and order of the Butterworth high-pass that fits the low end of a difference best, its level left free.
 *
 * @param points - difference in dB over frequency, trusted points only, in rising order
 * @returns null where no high-pass explains the difference
 */
export function fitLowCut(points: Points): LowCut | null {
  const low = points.filter((p) => p.hz >= LOWEST_HZ && p.hz <= HIGHEST_HZ);
  if (low.length < 6) return null;
  const levels = Float64Array.from(low, (p) => p.db);
  const curves = low.map((p) => curvesAt(p.hz));
  const rest = new Float64Array(low.length);
  const leaves = (candidate: number): number => {
    for (let i = 0; i < rest.length; i++) rest[i] = levels[i] - curves[i][candidate];
    return sumOfSquares(rest);
  };
  const flat = sumOfSquares(levels);
  let best: (LowCut & { readonly sum: number }) | null = null;
  for (const [candidate, { cornerHz, order }] of CANDIDATES.entries()) {
    const sum = leaves(candidate);
    if (!best || sum < best.sum) best = { cornerHz, order, residualDb: Math.sqrt(sum / low.length), sum };
  }
  if (!best) return null;
  const cut = -butterworthHighPassDb(best.order, best.cornerHz, low[0].hz);
  const explains = best.sum <= (1 - LEAST_EXPLAINED) * flat;
  return cut >= LEAST_CUT_DB && explains
    ? { cornerHz: best.cornerHz, order: best.order, residualDb: best.residualDb }
    : null;
}

/**
 * A low-cut that the material agrees about: it must be there in the whole and in both halves, at about the same corner;
 * its uncertainty is that of leaving out one part after the other (jackknife, Quenouille 1956, Tukey 1958). Where the
 * parts disagree, or the low end moves so much that one could hide, the material cannot tell.
 *
 * @param whole - difference over all of the material
 * @param halves - the same over its first and its second half
 * @param leftOut - the same with one part left out, part by part
 */
export function lowCutVerdict(whole: Points, halves: readonly Points[], leftOut: readonly Points[]): LowCutVerdict {
  const found = fitLowCut(whole);
  const [first, second] = halves.map(fitLowCut);
  const parts = leftOut.map(fitLowCut);
  if (!found) {
    if (first && second) return untold('its halves show one, the whole does not');
    const scatter = lowScatter(whole, leftOut);
    return scatter === null || scatter > LARGEST_SCATTER_DB
      ? untold(
          scatter === null
            ? 'it holds too little below 160 Hz'
            : `its low end moves by ${scatter.toFixed(1)} dB from part to part`,
        )
      : { kind: 'none' };
  }
  if (!first || !second || parts.some((p) => p === null)) return untold('it shows in a part of the material only');
  const corners = parts.flatMap((p) => (p ? [Math.log(p.cornerHz)] : []));
  const middle = corners.reduce((s, c) => s + c, 0) / corners.length;
  const count = corners.length;
  const relative = Math.sqrt(((count - 1) / count) * corners.reduce((s, c) => s + (c - middle) ** 2, 0));
  // Half of the material scatters by √2 more than the whole, and their difference by 2.
  if (Math.abs(Math.log(first.cornerHz / second.cornerHz)) > Math.max(Math.log(LARGEST_RATIO), 4 * relative))
    return untold(`its halves put it at ${first.cornerHz.toFixed(0)} and ${second.cornerHz.toFixed(0)} Hz`);
  const apart = Math.abs(Math.log(first.cornerHz / second.cornerHz)) / 2;
  const orders = [found, first, second].map((f) => f.order);
  return {
    kind: 'found',
    ...found,
    // A corner on a grid of 1 %.
    cornerU: found.cornerHz * Math.hypot(Math.max(relative, apart / Math.SQRT2), 0.01 / Math.sqrt(12)),
    orders: [Math.min(...orders), Math.max(...orders)],
  };
}

const untold = (reason: string): LowCutVerdict => ({ kind: 'untold', reason });

/** Largest jackknife deviation of the low end re 300 Hz–1 kHz; null where the low end is not there. */
function lowScatter(whole: Points, leftOut: readonly Points[]): number | null {
  const balance = (points: Points): number | null => {
    const mean = (from: number, to: number): number | null => {
      const inside = points.filter((p) => p.hz >= from && p.hz <= to);
      return inside.length === 0 ? null : inside.reduce((s, p) => s + p.db, 0) / inside.length;
    };
    const [low, middle] = [mean(LOWEST_HZ, LOW_END_HZ), mean(300, HIGHEST_HZ)];
    return low === null || middle === null ? null : low - middle;
  };
  if (balance(whole) === null) return null;
  const values = leftOut.flatMap((p) => balance(p) ?? []);
  if (values.length < 2) return null;
  const middle = values.reduce((s, v) => s + v, 0) / values.length;
  return Math.sqrt(((values.length - 1) / values.length) * values.reduce((s, v) => s + (v - middle) ** 2, 0));
}

/** A verdict in words. */
export function lowCutWords(verdict: LowCutVerdict): string {
  if (verdict.kind === 'none') return 'no hidden low-cut';
  if (verdict.kind === 'untold') return `whether a low-cut hides cannot be told from these words: ${verdict.reason}`;
  const [least, most] = verdict.orders;
  const order = least === most ? `order ${verdict.order}` : `order ${least} to ${most}`;
  return `low-cut of ${order} at ${verdict.cornerHz.toFixed(0)} ±${Math.max(1, verdict.cornerU).toFixed(0)} Hz`;
}

/** Squares of what is left, after the level that suits it best. */
function sumOfSquares(rest: Float64Array): number {
  let mean = 0;
  for (const r of rest) mean += r;
  mean /= rest.length;
  let sum = 0;
  for (const r of rest) sum += (r - mean) ** 2;
  return sum;
}
