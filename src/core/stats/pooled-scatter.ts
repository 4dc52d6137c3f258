import { mean } from './moments';
import { studentQuantile } from './student-t';

/** One reading of a group that was read again and again under the same conditions. */
export interface RepeatedReading {
  readonly value: number;
  /** Standard uncertainty of this reading alone; null where it is not known. */
  readonly uncertainty: number | null;
}

/** Scatter between readings, pooled over groups. */
export interface PooledScatter {
  /** Variance between readings beyond what each says of itself. */
  readonly variance: number;
  /** Degrees of freedom that stand for it: readings less groups. */
  readonly degrees: number;
}

/**
 * Variance between readings of the same thing, pooled over groups (one-way analysis of variance, JCGM 100:2008 H.5),
 * less what the readings' own uncertainties explain.
 *
 * @param groups - readings of one thing each, on a scale on which all scatter alike
 */
export function pooledScatter(groups: readonly (readonly RepeatedReading[])[]): PooledScatter {
  let [squares, degrees, own] = [0, 0, 0];
  for (const group of groups) {
    if (group.length < 2) continue;
    const middle = mean(group.map((g) => g.value));
    squares += group.reduce((s, g) => s + (g.value - middle) ** 2, 0);
    own += ((group.length - 1) / group.length) * group.reduce((s, g) => s + (g.uncertainty ?? 0) ** 2, 0);
    degrees += group.length - 1;
  }
  return { variance: degrees === 0 ? 0 : Math.max(0, (squares - own) / degrees), degrees };
}

/** A prior deviation counts like this many degrees of freedom. */
export const PRIOR_DEGREES = 6;

/**
 * Deviation between readings with a prior where there are few: both variances weighted by their degrees of freedom (the
 * mean of a scaled inverse χ² prior; Gelman et al., Bayesian Data Analysis, 2.6, from memory), widened by Student's t so
 * that two of it still cover 95 %.
 *
 * @param pooled - from repeats
 * @param prior - standard deviation that is expected before any
 */
export function deviationBetween(pooled: PooledScatter, prior: number): number {
  const degrees = pooled.degrees + PRIOR_DEGREES;
  const variance = (pooled.degrees * pooled.variance + PRIOR_DEGREES * prior ** 2) / degrees;
  return Math.sqrt(variance) * (studentQuantile(0.975, degrees) / NORMAL_975);
}

const NORMAL_975 = 1.959963984540054;
