/** Arithmetic mean; NaN for an empty list. */
export function mean(values: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i];
  return sum / values.length;
}

/** Sample standard deviation (divisor n − 1), two-pass; NaN for fewer than two values. */
export function standardDeviation(values: ArrayLike<number>): number {
  if (values.length < 2) return NaN;
  const centre = mean(values);
  let squares = 0;
  for (let i = 0; i < values.length; i++) squares += (values[i] - centre) ** 2;
  return Math.sqrt(squares / (values.length - 1));
}
