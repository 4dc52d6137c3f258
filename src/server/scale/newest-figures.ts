import { ALGORITHM_VERSION } from '#core/measure/registry';
import { countingFacts, type RankedFact } from '#domain/catalogue/comparable-facts';
import type { Queryable } from '../platform/db/database';
import { currentFacts } from '../runs/queries/measurement';

/** The newest figure of each unit and quantity, whatever it was measured under. */
export async function newestFigures(db: Queryable): Promise<RankedFact[]> {
  const all = await currentFacts(db, ALGORITHM_VERSION);
  return countingFacts(all.map((fact) => ({ ...fact, remark: null })));
}
