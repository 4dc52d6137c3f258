/**
 * Weighted median: the value at which half of the weight is reached; between two values where it is reached exactly.
 *
 * @param values - in any order; of none, 0
 * @param weights - as many, not negative
 *
 * @example
 *   weightedMedian([1, 2, 10], [1, 1, 3]); // => 10
 */
export function weightedMedian(values: readonly number[], weights: readonly number[]): number {
  const order = values.map((_, i) => i).sort((a, b) => values[a] - values[b]);
  const half = weights.reduce((s, w) => s + w, 0) / 2;
  let sum = 0;
  for (const [at, i] of order.entries()) {
    sum += weights[i];
    if (Math.abs(sum - half) < 1e-12 * half && at + 1 < order.length) return (values[i] + values[order[at + 1]]) / 2;
    if (sum >= half) return values[i];
  }
  return 0;
}
