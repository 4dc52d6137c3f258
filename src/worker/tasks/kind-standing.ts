import type { UnitFacts } from '#core/rules/criterion-points';
import type { Rubric } from '#core/rules/rubric';
import { kindStanding } from '#core/rules/kind-standing';

/** Order to a worker: how the units of a kind stand to each other, for reviews and what is published. */
export interface KindStandingTask {
  readonly units: readonly UnitFacts[];
  /** Null: the kind has no rules. */
  readonly rubric: Rubric | null;
}

export default ({ units, rubric }: KindStandingTask) => kindStanding(units, rubric);
