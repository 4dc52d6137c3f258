/**
 * Distribution function of Student's t.
 *
 * @param t - value
 * @param df - degrees of freedom, > 0
 * @returns P(T ≤ t); NaN for df ≤ 0
 * @see Abramowitz & Stegun, Handbook of Mathematical Functions, 26.7.1 with 26.5.27
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

/** Regularised incomplete beta function I_x(a, b), by its continued fraction (Abramowitz & Stegun 26.5.8). */
function regularisedBeta(x: number, a: number, b: number): number {
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

/** Coefficients of Lanczos' approximation with g = 7 (Godfrey's set of nine, from memory; the tests compare with scipy). */
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];

/** Logarithm of the gamma function for x > 0. */
function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  let sum = LANCZOS[0];
  for (let i = 1; i < LANCZOS.length; i++) sum += LANCZOS[i] / (x - 1 + i);
  const t = x + 6.5;
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum);
}
