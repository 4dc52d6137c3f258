import type { UnitEvent } from '#contracts/session-plan';
import type { Queryable } from '../../platform/db/database';

export async function noteUnitEvent(db: Queryable, specimenId: string, event: UnitEvent): Promise<void> {
  await db.query('INSERT INTO unit_event (specimen_id, kind, note, effective_on, sum) VALUES ($1, $2, $3, $4, $5)', [
    specimenId,
    event.kind,
    event.note,
    event.day,
    event.sum,
  ]);
}

/** Of one unit or of all, newest first. */
export async function listUnitEvents(
  db: Queryable,
  specimenId: string | null = null,
): Promise<(UnitEvent & { specimen_id: string })[]> {
  return db.query(
    `SELECT specimen_id, kind, note, effective_on AS day, sum FROM unit_event
     WHERE $1::bigint IS NULL OR specimen_id = $1 ORDER BY effective_on DESC, id DESC`,
    [specimenId],
  );
}
