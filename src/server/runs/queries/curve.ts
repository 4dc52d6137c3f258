import type { Queryable } from '../../platform/db/database';

/** Keeps a curve of a run; one of the same version that differs stays, with the moment it ceased to count. */
export async function storeCurve(
  db: Queryable,
  runId: string,
  kind: string,
  algorithmVersion: number,
  document: unknown,
): Promise<void> {
  const values = [runId, kind, algorithmVersion, JSON.stringify(document)];
  await db.query(
    `UPDATE curve SET superseded_at = now()
     WHERE run_id = $1 AND kind = $2 AND algorithm_version = $3 AND superseded_at IS NULL AND document <> $4::jsonb`,
    values,
  );
  await db.query(
    `INSERT INTO curve (run_id, kind, algorithm_version, document) VALUES ($1, $2, $3, $4)
     ON CONFLICT (run_id, kind, algorithm_version) WHERE superseded_at IS NULL DO NOTHING`,
    values,
  );
}

/** A curve that the run does not give any more stays, with the moment it ceased to count. */
export async function dropCurve(db: Queryable, runId: string, kind: string, algorithmVersion: number): Promise<void> {
  await db.query(
    'UPDATE curve SET superseded_at = now() WHERE run_id = $1 AND kind = $2 AND algorithm_version = $3 AND superseded_at IS NULL',
    [runId, kind, algorithmVersion],
  );
}

/** One curve of a run as it counts now; null where the run has none. */
export async function curveOfRun(
  db: Queryable,
  runId: string,
  kind: string,
  algorithmVersion: number,
): Promise<unknown> {
  const [row] = await db.query<{ document: unknown }>(
    'SELECT document FROM curve WHERE run_id = $1 AND kind = $2 AND algorithm_version = $3 AND superseded_at IS NULL',
    [runId, kind, algorithmVersion],
  );
  return row?.document ?? null;
}

/** Curves of all runs of a specimen. */
export async function curvesOfSpecimen(
  db: Queryable,
  specimenId: string,
  algorithmVersion: number,
): Promise<{ run_id: string; kind: string; document: unknown }[]> {
  return db.query(
    `SELECT c.run_id, c.kind, c.document FROM curve c JOIN run r ON r.id = c.run_id
     WHERE r.specimen_id = $1 AND c.algorithm_version = $2 AND c.superseded_at IS NULL`,
    [specimenId, algorithmVersion],
  );
}
