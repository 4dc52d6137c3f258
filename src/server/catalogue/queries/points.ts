import type { PointsInput } from '#contracts/run-document';
import { amongUpTo } from '../../platform/db/among';
import type { Queryable } from '../../platform/db/database';
import type { GivenPoints } from '#domain/catalogue/specimen-base';

interface PointsContext {
  readonly specimenId: string;
  readonly rubricVersionId: string;
  /** The run that they came with, or null for points given in the application. */
  readonly runId: string | null;
  readonly day: string;
}

/** Appends points. Points that came with a run and are there already are not appended again. */
export async function givePoints(db: Queryable, context: PointsContext, points: PointsInput): Promise<void> {
  const { specimenId, rubricVersionId, runId, day } = context;
  await db.query(
    `INSERT INTO points (specimen_id, rubric_version_id, run_id, criterion, value, reason, effective_on)
     SELECT $1::bigint, $2::bigint, $3::bigint, $4::text, $5::double precision, $6::text, $7::date
     WHERE $3::bigint IS NULL OR NOT EXISTS (
       SELECT 1 FROM points
       WHERE run_id = $3 AND criterion = $4 AND value = $5 AND reason IS NOT DISTINCT FROM $6::text)`,
    [specimenId, rubricVersionId, runId, points.criterion, points.value, points.reason ?? null, day],
  );
}

/** All points of one specimen, newest first. */
export async function pointsHistory(db: Queryable, specimenId: string): Promise<GivenPoints[]> {
  return db.query(
    `SELECT specimen_id, criterion, value, reason, effective_on AS date FROM points
     WHERE specimen_id = $1 ORDER BY id DESC`,
    [specimenId],
  );
}

/** The points that count, one per specimen and criterion; of some specimens, or of all. */
export async function currentPoints(
  db: Queryable,
  ids: readonly string[] | null = null,
  until: string | null = null,
): Promise<GivenPoints[]> {
  const { sql, values } = amongUpTo(ids, until, { id: 'specimen_id', day: 'effective_on' }, 1);
  return db.query(
    `SELECT DISTINCT ON (specimen_id, criterion) specimen_id, criterion, value, reason, effective_on AS date
     FROM points WHERE true ${sql} ORDER BY specimen_id, criterion, id DESC`,
    values,
  );
}
