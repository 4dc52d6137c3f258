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

/**
 * Points by the curve from worth to points.
 *
 * @param criterion - the rule
 * @param fact - what was heard, or undefined
 * @returns null where too few answers stand for it
 */
export function heardPoints(criterion: HeardCriterion, fact: HeardFact | undefined): number | null {
  return fact && fact.answers >= criterion.leastAnswers ? pointsOnCurve(criterion.curve, fact.logWorth) : null;
}
