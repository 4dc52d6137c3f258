import { normalQuantile } from './normal';

/**
 * Interval of a share, by Wilson's score.
 *
 * @param hits - how often it happened, 0 … of
 * @param of - how often it could have, 1 or more
 * @param confidence - 0 … 1, two-sided
 * @returns both ends, 0 … 1
 * @throws RangeError for counts that make no share
 * @see Wilson, JASA 22 (1927); Newcombe, Statistics in Medicine 17 (1998), method 3
 *
 * @example
 *   shareInterval(5, 5, 0.95)[1]; // => 1
 */
export function shareInterval(hits: number, of: number, confidence: number): [number, number] {
  if (!(of >= 1) || hits < 0 || hits > of) throw new RangeError(`${hits} of ${of} is no share`);
  const z = normalQuantile((1 + confidence) / 2);
  const share = hits / of;
  const centre = (share + z ** 2 / (2 * of)) / (1 + z ** 2 / of);
  const half = (z / (1 + z ** 2 / of)) * Math.sqrt((share * (1 - share)) / of + z ** 2 / (4 * of ** 2));
  return [Math.max(0, centre - half), Math.min(1, centre + half)];
}
