import { regularisedBeta } from './beta';

/**
 * Distribution function of Student's t.
 *
 * @param t - value
 * @param df - degrees of freedom, > 0
 * @returns P(T ≤ t); NaN for df ≤ 0
 * @see Abramowitz & Stegun, Handbook of Mathematical Functions, 26.7.1 with 26.5.27
 *
 * @example
 *   studentCdf(1, 1); // ≈ 0.750
 */
export function studentCdf(t: number, df: number): number {
  if (!(df > 0)) return NaN;
  if (t === Infinity) return 1;
  if (t === -Infinity) return 0;
  const tail = 0.5 * regularisedBeta(df / (df + t * t), df / 2, 0.5);
  return t > 0 ? 1 - tail : tail;
}

/**
 * Quantile of Student's t, by bisection and Newton's method on {@link studentCdf}.
 *
 * @param p - probability, 0 < p < 1
 * @param df - degrees of freedom, > 0
 * @returns t with P(T ≤ t) = p; NaN outside the range
 *
 * @example
 *   studentQuantile(0.975, 10); // ≈ 2.228
 */
export function studentQuantile(p: number, df: number): number {
  if (!(p > 0 && p < 1) || !(df > 0)) return NaN;
  if (p === 0.5) return 0;
  if (p < 0.5) return -studentQuantile(1 - p, df);
  let low = 0;
  let high = 1;
  while (studentCdf(high, df) < p && high < 1e12) high *= 2;
  for (let i = 0; i < 200 && high - low > 1e-13 * high; i++) {
    const middle = (low + high) / 2;
    if (studentCdf(middle, df) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
