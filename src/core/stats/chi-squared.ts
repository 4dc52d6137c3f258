import { regularisedGammaUpper } from './gamma';

/**
 * Upper tail of the χ² distribution.
 *
 * @param x - value, ≥ 0
 * @param df - degrees of freedom, > 0 (need not be whole)
 * @returns P(X ≥ x); NaN for df ≤ 0
 *
 * @example
 *   chiSquaredTail(3.8415, 1); // ≈ 0.0500
 */
export function chiSquaredTail(x: number, df: number): number {
  return df > 0 ? regularisedGammaUpper(df / 2, x / 2) : NaN;
}
