import { pointsOnCurve } from './points-curve';
import { weightOf } from './criterion-points';
import type { Rubric } from './rubric';

/**
 * Weighted mean of the points that the measured criteria of a rubric give, those that are missing left out: what the
 * figures alone say of a unit that nobody has heard.
 *
 * @param rubric - the rules
 * @param figures - by quantity
 * @returns null where no measured criterion has a figure
 */
export function meanMeasuredPoints(rubric: Rubric, figures: ReadonlyMap<string, number | null>): number | null {
  let [sum, weights] = [0, 0];
  for (const criterion of rubric.criteria) {
    if (criterion.kind !== 'measured') continue;
    const value = figures.get(criterion.quantity) ?? null;
    const weight = Math.max(0, weightOf(rubric.weights, criterion));
    if (value === null || weight === 0) continue;
    sum += weight * pointsOnCurve(criterion.curve, value);
    weights += weight;
  }
  return weights === 0 ? null : sum / weights;
}
