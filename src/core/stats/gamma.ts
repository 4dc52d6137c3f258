/** Coefficients of Lanczos' approximation with g = 7 (Godfrey's set of nine, from memory; the tests compare with scipy). */
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];

/**
 * Logarithm of the gamma function for x > 0.
 *
 * @example
 *   logGamma(5); // ≈ 3.178054
 */
export function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  let sum = LANCZOS[0];
  for (let i = 1; i < LANCZOS.length; i++) sum += LANCZOS[i] / (x - 1 + i);
  const t = x + 6.5;
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum);
}

/**
 * Regularised upper incomplete gamma function Q(a, x): its series below a + 1, its continued fraction above.
 *
 * @param a - > 0
 * @param x - ≥ 0
 * @see Abramowitz & Stegun, 6.5.29 and 6.5.31
 *
 * @example
 *   regularisedGammaUpper(1, 1); // ≈ 0.367879
 */
export function regularisedGammaUpper(a: number, x: number): number {
  if (x <= 0) return 1;
  const front = Math.exp(a * Math.log(x) - x - logGamma(a));
  if (x < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < 10_000 && term > sum * 1e-16; n++) {
      term *= x / (a + n);
      sum += term;
    }
    return 1 - front * sum;
  }
  let b = x + 1 - a;
  let c = 1e300;
  let d = 1 / b;
  let value = d;
  for (let i = 1; i < 10_000; i++) {
    const an = -i * (i - a);
    b += 2;
    d = 1 / (an * d + b);
    c = b + an / c;
    value *= d * c;
    if (Math.abs(d * c - 1) < 1e-15) break;
  }
  return front * value;
}

/**
 * Trigamma function ψ′(x), the second derivative of ln Γ: recurrence up to 6, then the asymptotic series
 * (Abramowitz & Stegun, 6.4.6 and 6.4.12).
 *
 * @param x - > 0
 *
 * @example
 *   trigamma(1); // ≈ 1.644934
 */
export function trigamma(x: number): number {
  let sum = 0;
  let at = x;
  for (; at < 6; at++) sum += 1 / at ** 2;
  const r = 1 / at ** 2;
  return sum + 1 / at + r / 2 + (r / at) * (1 / 6 - r * (1 / 30 - r * (1 / 42 - r / 30)));
}
