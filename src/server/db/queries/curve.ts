import type { Queryable } from '../database';

/** Keeps a curve of a run; one of the same version is replaced by the same curve. */
export async function storeCurve(
  db: Queryable,
  runId: string,
  kind: string,
  algorithmVersion: number,
  document: unknown,
): Promise<void> {
  await db.query(
    `INSERT INTO curve (run_id, kind, algorithm_version, document) VALUES ($1, $2, $3, $4)
     ON CONFLICT (run_id, kind, algorithm_version) DO UPDATE SET document = excluded.document`,
    [runId, kind, algorithmVersion, JSON.stringify(document)],
  );
}

/** Curves of a run by kind. */
export async function curvesOfRun(
  db: Queryable,
  runId: string,
  algorithmVersion: number,
): Promise<Record<string, unknown>> {
  const rows = await db.query<{ kind: string; document: unknown }>(
    'SELECT kind, document FROM curve WHERE run_id = $1 AND algorithm_version = $2',
    [runId, algorithmVersion],
  );
  return Object.fromEntries(rows.map((r) => [r.kind, r.document]));
}
