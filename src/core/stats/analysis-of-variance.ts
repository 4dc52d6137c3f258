import { regularisedBeta } from './beta';
import { mean } from './moments';

/** Spread between groups, held against the spread of repeats within them. */
export interface VarianceAnalysis {
  /** Ratio of the two mean squares. */
  readonly f: number;
  readonly betweenDegrees: number;
  readonly withinDegrees: number;
  /** How often chance alone would give so large a ratio. */
  readonly p: number;
  /** Standard deviation of a repeat. */
  readonly withinSd: number;
}

/**
 * One-way analysis of variance: do groups differ by more than repeats do?
 *
 * @param groups - readings of one condition each
 * @param spent - degrees of freedom that were taken off within the groups already
 * @returns null where there are fewer than two groups, or nothing was repeated
 * @see NIST/SEMATECH e-Handbook of Statistical Methods, 7.4.3
 *
 * @example
 *   analysisOfVariance([[1, 2], [3, 4]])?.f; // => 8
 */
export function analysisOfVariance(groups: readonly (readonly number[])[], spent = 0): VarianceAnalysis | null {
  const filled = groups.filter((g) => g.length > 0);
  const count = filled.reduce((n, g) => n + g.length, 0);
  const [betweenDegrees, withinDegrees] = [filled.length - 1, count - filled.length - spent];
  if (betweenDegrees < 1 || withinDegrees < 1) return null;
  const middle = mean(filled.flat());
  let [between, within] = [0, 0];
  for (const group of filled) {
    const own = mean(group);
    between += group.length * (own - middle) ** 2;
    for (const value of group) within += (value - own) ** 2;
  }
  const withinSquare = within / withinDegrees;
  if (withinSquare === 0) return null;
  const f = between / betweenDegrees / withinSquare;
  return {
    f,
    betweenDegrees,
    withinDegrees,
    p: fTail(f, betweenDegrees, withinDegrees),
    withinSd: Math.sqrt(withinSquare),
  };
}

/**
 * Upper tail of Fisher's F.
 *
 * @param f - ratio, ≥ 0
 * @param d1 - degrees of freedom of the numerator, > 0
 * @param d2 - of the denominator, > 0
 * @returns P(F ≥ f)
 * @see Abramowitz & Stegun, Handbook of Mathematical Functions, 26.6.2
 *
 * @example
 *   fTail(4.964603, 1, 10); // ≈ 0.05
 */
export const fTail = (f: number, d1: number, d2: number): number => regularisedBeta(d2 / (d2 + d1 * f), d2 / 2, d1 / 2);
