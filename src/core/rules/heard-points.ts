import { normalQuantile } from '../stats/normal';
import { pointsOnCurve } from './points-curve';
import type { HeardCriterion } from './rubric';

/** What blind answers say of one unit. */
export interface HeardFact {
  /** Log odds of being preferred to the middle unit of the scale. */
  readonly logWorth: number;
  /** Its standard error. */
  readonly se: number;
  /** Answers that it took part in. */
  readonly answers: number;
}

/** Points with their standard deviation. */
export interface UncertainPoints {
  readonly points: number;
  readonly sd: number;
}

/** Where the curve is flat, points look surer than anything heard can be. Common practice, no source. */
const LEAST_SD = 0.1;
/** Normal quantiles of equal shares, by which the worth is carried through the curve. */
const SHARES = 21;
const QUANTILES = Array.from({ length: SHARES }, (_, i) => normalQuantile((i + 0.5) / SHARES));

/**
 * Points by the curve from worth to points, with the worth's standard error carried through it.
 *
 * @param criterion - the rule
 * @param fact - what was heard, or undefined
 * @returns null where too few answers stand for it
 */
export function heardPoints(criterion: HeardCriterion, fact: HeardFact | undefined): UncertainPoints | null {
  if (!fact || fact.answers < criterion.leastAnswers) return null;
  const points = pointsOnCurve(criterion.curve, fact.logWorth);
  const drawn = QUANTILES.map((z) => pointsOnCurve(criterion.curve, fact.logWorth + z * fact.se));
  const spread = Math.sqrt(drawn.reduce((s, p) => s + (p - points) ** 2, 0) / SHARES);
  return { points, sd: Math.max(LEAST_SD, spread) };
}

/**
 * Points that were heard, with points given by hand as what was thought before: the mean weighed by the inverse of the
 * variances (normal prior and likelihood; Gelman et al., Bayesian Data Analysis, 3rd ed. 2013, section 2.5, from
 * memory). A handful of answers moves the points a little, many take over.
 */
export function blendedPoints(heard: UncertainPoints, given: UncertainPoints): UncertainPoints {
  const [h, g] = [heard.sd ** -2, given.sd ** -2];
  return { points: (h * heard.points + g * given.points) / (h + g), sd: (h + g) ** -0.5 };
}
