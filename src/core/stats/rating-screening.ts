import { binomialTail } from './binomial';
import { mean, standardDeviation } from './moments';
import { quantileSorted } from './quantile';
import { studentQuantile } from './student-t';

/** Ratings of one listener in one trial, 0…100. */
export interface RatedTrial {
  readonly listener: string;
  readonly reference: number;
  /** The 7 kHz low-pass anchor; null where a test had none. */
  readonly midAnchor: number | null;
}

/** Limits of the post-screening (ITU-R BS.1534-3, 4.1.2; from memory). */
export const SCREENING = { leastReference: 90, mostAnchor: 90, share: 0.15 } as const;

/** Whether a listener's ratings may count. */
export interface Screening {
  readonly listener: string;
  readonly trials: number;
  readonly lowReference: number;
  readonly highAnchor: number;
  readonly isKept: boolean;
}

/**
 * Post-screening of listeners: out goes who rates the hidden reference below 90 in more than 15 % of the trials, or
 * the mid-range anchor above 90 in more than 15 % of them.
 *
 * @param trials - all trials of all listeners
 * @returns one entry per listener, in the order of first appearance
 * @see ITU-R BS.1534-3, 4.1.2 (from memory)
 */
export function screenListeners(trials: readonly RatedTrial[]): Screening[] {
  return [...new Set(trials.map((t) => t.listener))].map((listener) => {
    const own = trials.filter((t) => t.listener === listener);
    const lowReference = own.filter((t) => t.reference < SCREENING.leastReference).length;
    const highAnchor = own.filter((t) => t.midAnchor !== null && t.midAnchor > SCREENING.mostAnchor).length;
    const most = SCREENING.share * own.length;
    return {
      listener,
      trials: own.length,
      lowReference,
      highAnchor,
      isKept: lowReference <= most && highAnchor <= most,
    };
  });
}

/** Ratings of one thing over listeners and trials. */
export interface RatingSummary {
  readonly count: number;
  readonly median: number;
  /** Lower and upper quartile (type 7). */
  readonly quartiles: readonly [number, number];
  /** 95 % interval of the median from order statistics (at least 95 %); null for fewer than six ratings, which have none. */
  readonly median95: readonly [number, number] | null;
  readonly mean: number;
  /** 95 % interval of the mean by Student's t; null for one rating. */
  readonly mean95: readonly [number, number] | null;
}

/**
 * Median with its distribution-free interval, and mean with its interval.
 *
 * @param ratings - 0…100, at least one
 * @see ITU-R BS.1534-3, 9 (medians and quartiles; from memory); Conover, Practical Nonparametric Statistics (interval of a quantile)
 */
export function summariseRatings(ratings: readonly number[]): RatingSummary {
  const sorted = Float64Array.from(ratings).sort();
  const n = sorted.length;
  const centre = mean(sorted);
  const reach = n > 1 ? (studentQuantile(0.975, n - 1) * standardDeviation(sorted)) / Math.sqrt(n) : NaN;
  const depth = intervalDepth(n);
  return {
    count: n,
    median: quantileSorted(sorted, 0.5),
    quartiles: [quantileSorted(sorted, 0.25), quantileSorted(sorted, 0.75)],
    median95: depth === 0 ? null : [sorted[depth - 1], sorted[n - depth]],
    mean: centre,
    mean95: n > 1 ? [centre - reach, centre + reach] : null,
  };
}

/** The largest d with P(fewer than d of n below the median) ≤ 2.5 %; 0 where there is none. */
function intervalDepth(n: number): number {
  let depth = 0;
  while (depth < Math.floor(n / 2) && 1 - binomialTail(depth + 1, n, 0.5) <= 0.025) depth++;
  return depth;
}
