import { MOST_POINTS } from './points-curve';
import type { Rubric } from './rubric';

/** A total in the unit in which a rubric shows it. */
export interface ShownTotal {
  /** What the mean of 5 is multiplied by. */
  readonly factor: number;
  /** What the best possible total is. */
  readonly most: number;
  readonly decimals: number;
  /** Head of a column. */
  readonly head: string;
}

const PER_CENT = 100;

/**
 * How a rubric shows totals: as the weighted mean of 5, as a sum of five points for each criterion that counts, or in per
 * cent of the most. All three say the same.
 *
 * @param rubric - the rules
 * @param weights - those that a ranking uses: a criterion without weight adds nothing to a sum
 */
export function shownTotal(rubric: Rubric, weights: Rubric['weights']): ShownTotal {
  const counting = rubric.criteria.filter((c) => (weights[c.id] ?? 0) > 0).length || rubric.criteria.length;
  switch (rubric.total ?? 'mean') {
    case 'mean':
      return { factor: 1, most: MOST_POINTS, decimals: 2, head: `Points of ${MOST_POINTS}` };
    case 'sum':
      return {
        factor: counting,
        most: counting * MOST_POINTS,
        decimals: 1,
        head: `Points of ${counting * MOST_POINTS}`,
      };
    case 'per-cent':
      return { factor: PER_CENT / MOST_POINTS, most: PER_CENT, decimals: 0, head: 'Per cent' };
  }
}

/** Weights of a use: its own, and the rubric's for what it does not name; the rubric's for a name that is no use. */
export function weightsFor(rubric: Rubric, use: string | null): Rubric['weights'] {
  const found = rubric.uses?.find((u) => u.name === use);
  return found ? { ...rubric.weights, ...found.weights } : rubric.weights;
}
