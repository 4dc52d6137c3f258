import { ALGORITHM_VERSION } from '#core/measure/registry';
import type { Queryable } from '../platform/db/database';
import { laneTakes, type LaneRow } from '../compare/queries/compare';
import { Failure } from '../platform/failure';

/**
 * Measured takes in the order in which they were asked for.
 *
 * @throws Failure `not-found` for a take that is not there or not measured
 */
export async function takesInOrder(db: Queryable, takeIds: readonly string[]): Promise<LaneRow[]> {
  const rows = await laneTakes(db, takeIds, ALGORITHM_VERSION);
  return takeIds.map((id) => {
    const row = rows.find((r) => r.take_id === id);
    if (!row) throw new Failure('not-found', `There is no measured take with the number ${id}.`);
    return row;
  });
}
