import { regularisedBeta } from './beta';
import { logGamma } from './gamma';

/**
 * Probability of exactly k successes.
 *
 * @param k - successes, 0…n
 * @param n - trials
 * @param p - probability of a success in one trial
 *
 * @example
 *   binomialProbability(2, 4, 0.5); // ≈ 0.375000
 */
export function binomialProbability(k: number, n: number, p: number): number {
  if (k < 0 || k > n) return 0;
  if (p <= 0) return k === 0 ? 1 : 0;
  if (p >= 1) return k === n ? 1 : 0;
  const ways = logGamma(n + 1) - logGamma(k + 1) - logGamma(n - k + 1);
  return Math.exp(ways + k * Math.log(p) + (n - k) * Math.log1p(-p));
}

/**
 * Upper tail of the binomial distribution.
 *
 * @param k - successes
 * @param n - trials
 * @param p - probability of a success in one trial
 * @returns P(X ≥ k)
 * @see Abramowitz & Stegun, 26.5.24
 *
 * @example
 *   binomialTail(12, 16, 0.5); // ≈ 0.0384
 */
export function binomialTail(k: number, n: number, p: number): number {
  if (k <= 0) return 1;
  if (k > n) return 0;
  return regularisedBeta(p, k, n - k + 1);
}
