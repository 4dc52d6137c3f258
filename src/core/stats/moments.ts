/**
 * Arithmetic mean; NaN for an empty list.
 *
 * @example
 *   mean([1, 2, 6]); // => 3
 */
export function mean(values: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i];
  return sum / values.length;
}

/**
 * Sample standard deviation (divisor n − 1), two-pass; NaN for fewer than two values.
 *
 * @example
 *   standardDeviation([2, 4, 4, 4, 5, 5, 7, 9]); // ≈ 2.13809
 */
export function standardDeviation(values: ArrayLike<number>): number {
  if (values.length < 2) return NaN;
  const centre = mean(values);
  let squares = 0;
  for (let i = 0; i < values.length; i++) squares += (values[i] - centre) ** 2;
  return Math.sqrt(squares / (values.length - 1));
}
