import { logGamma } from './gamma';

/**
 * Regularised incomplete beta function I_x(a, b), by its continued fraction.
 *
 * @param x - 0…1; beyond, the nearer end
 * @param a - > 0
 * @param b - > 0
 * @see Abramowitz & Stegun, Handbook of Mathematical Functions, 26.5.8
 *
 * @example
 *   regularisedBeta(0.5, 2, 3); // ≈ 0.6875
 */
export function regularisedBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x));
  // The fraction converges quickly on this side of the mean only; the other side follows by symmetry.
  return x < (a + 1) / (a + b + 2) ? (front * betaFraction(x, a, b)) / a : 1 - (front * betaFraction(1 - x, b, a)) / b;
}

/** The continued fraction by the method of Lentz. */
function betaFraction(x: number, a: number, b: number): number {
  const tiny = 1e-300;
  let c = 1;
  let d = 1 / nonZero(1 - ((a + b) * x) / (a + 1), tiny);
  let value = d;
  for (let m = 1; m <= 300; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / nonZero(1 + even * d, tiny);
    c = nonZero(1 + even / c, tiny);
    value *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / nonZero(1 + odd * d, tiny);
    c = nonZero(1 + odd / c, tiny);
    value *= d * c;
    if (Math.abs(d * c - 1) < 1e-15) break;
  }
  return value;
}

const nonZero = (x: number, tiny: number): number => (Math.abs(x) < tiny ? tiny : x);
