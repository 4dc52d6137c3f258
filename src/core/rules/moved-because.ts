import { criterionPoints, type UnitFacts } from './criterion-points';
import type { Rubric } from './rubric';

/** A criterion of a unit whose points are others than before. */
export interface ChangedPoints {
  readonly criterion: string;
  /** Null: missing. */
  readonly before: number | null;
  readonly after: number | null;
  /** Where the points come from now, or why there are none. */
  readonly why: string;
}

/** Points that differ by less are shown alike. */
const SHOWN_DIFFERENCE = 0.05;

/**
 * What of a unit changed its points between two days, by the rules of each of them: what is the same does not explain a
 * move, and a unit that nothing changed of was moved by others.
 *
 * @returns the largest change first
 */
export function movedBecause(
  before: { readonly unit: UnitFacts; readonly rubric: Rubric },
  after: { readonly unit: UnitFacts; readonly rubric: Rubric },
): ChangedPoints[] {
  const old = new Map(before.rubric.criteria.map((c) => [c.id, criterionPoints(c, before.unit).points]));
  const size = ({ before: a, after: b }: ChangedPoints): number =>
    a === null || b === null ? Infinity : Math.abs(a - b);
  return after.rubric.criteria
    .map((c): ChangedPoints => {
      const now = criterionPoints(c, after.unit);
      return { criterion: c.id, before: old.get(c.id) ?? null, after: now.points, why: now.why };
    })
    .filter((change) => !(change.before === null && change.after === null) && size(change) >= SHOWN_DIFFERENCE)
    .sort((a, b) => size(b) - size(a));
}
