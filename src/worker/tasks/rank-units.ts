import { rankUnits, type RankedUnit, type RankOptions } from '#core/rules/rank';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { Rubric } from '#core/rules/rubric';

/** Order to a worker: rank a category. */
export interface RankUnitsTask {
  readonly units: readonly UnitFacts[];
  readonly rubric: Rubric;
  readonly options: RankOptions;
}

export default function rankUnitsTask({ units, rubric, options }: RankUnitsTask): RankedUnit[] {
  return rankUnits(units, rubric, options);
}
