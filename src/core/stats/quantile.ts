/**
 * Quantile of sorted values by linear interpolation (Hyndman & Fan 1996, type 7: the default of R).
 *
 * @param sorted - ascending; empty gives NaN
 * @param p - 0…1
 */
export function quantileSorted(sorted: ArrayLike<number>, p: number): number {
  if (sorted.length === 0) return NaN;
  const position = p * (sorted.length - 1);
  const below = Math.floor(position);
  const above = Math.min(below + 1, sorted.length - 1);
  return sorted[below] + (position - below) * (sorted[above] - sorted[below]);
}

/**
 * As {@link quantileSorted}, of values in any order.
 *
 * @example
 *   quantile([4, 1, 3, 2], 0.5); // => 2.5
 */
export function quantile(values: ArrayLike<number>, p: number): number {
  return quantileSorted(Float64Array.from(values).sort(), p);
}
