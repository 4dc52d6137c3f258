import { chiSquaredTail } from './chi-squared';

/**
 * Distribution function of the standard normal: the square of a normal number is χ² with one degree of freedom.
 *
 * @param z - any number
 * @returns P(Z ≤ z)
 *
 * @example
 *   normalBelow(1); // ≈ 0.8413
 *   normalBelow(-1.6449); // ≈ 0.0500
 *   normalBelow(0); // => 0.5
 */
export function normalBelow(z: number): number {
  const tail = chiSquaredTail(z * z, 1) / 2;
  return z > 0 ? 1 - tail : tail;
}
