import type { UnitFacts } from '#core/rules/criterion-points';
import { rankUnits, type RankedUnit } from '#core/rules/rank';
import type { Rubric } from '#core/rules/rubric';

/** Order to a worker: the ranking of a kind by the weights of each of its uses. */
export interface RankForUsesTask {
  readonly units: readonly UnitFacts[];
  readonly rubric: Rubric;
}

/** Best first, one list per use in their order. */
export default ({ units, rubric }: RankForUsesTask): RankedUnit[][] =>
  (rubric.uses ?? []).map((use) => rankUnits(units, rubric, { weights: { ...rubric.weights, ...use.weights } }));
