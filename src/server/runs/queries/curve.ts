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

/** Curves of a run by kind. */
export async function curvesOfRun(
  db: Queryable,
  runId: string,
  algorithmVersion: number,
): Promise<Record<string, unknown>> {
  const rows = await db.query<{ kind: string; document: unknown }>(
    'SELECT kind, document FROM curve WHERE run_id = $1 AND algorithm_version = $2 AND superseded_at IS NULL',
    [runId, algorithmVersion],
  );
  return Object.fromEntries(rows.map((r) => [r.kind, r.document]));
}
