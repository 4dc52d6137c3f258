import type { Segments } from '#contracts/segments';
import type { Queryable } from '../../platform/db/database';

/** Joins the choice that counts for a clip (`t.clip_sha256`) and a version ($2) as `ch`; all null where there is none. */
export const CURRENT_CHOICE = `LEFT JOIN LATERAL (
       SELECT x.segments, x.summary, x.detail, x.measurements FROM segment_choice x
       WHERE x.clip_sha256 = t.clip_sha256 AND x.algorithm_version = $2 ORDER BY x.id DESC LIMIT 1
     ) ch ON true`;

/** What was measured by a person's segments. */
export interface ChoiceResult {
  readonly summary: unknown;
  readonly detail: unknown;
  readonly measurements: unknown;
}

/** Keeps a choice with its figures; without segments, the automatic ones count again. */
export async function addSegmentChoice(
  db: Queryable,
  sha256: string,
  algorithmVersion: number,
  segments: Segments | null,
  result: ChoiceResult | null,
): Promise<void> {
  const json = (value: unknown): string | null =>
    value === null || value === undefined ? null : JSON.stringify(value);
  await db.query(
    `INSERT INTO segment_choice (clip_sha256, algorithm_version, segments, summary, detail, measurements)
     VALUES ($1, $2, $3, $4, $5, $6)`,
    [sha256, algorithmVersion, json(segments), json(result?.summary), json(result?.detail), json(result?.measurements)],
  );
}

/** The newest choice of a clip under whatever version, and whether this version has measured it. */
export async function latestChoice(
  db: Queryable,
  sha256: string,
): Promise<{ segments: unknown; algorithm_version: number } | null> {
  const [row] = await db.query<{ segments: unknown; algorithm_version: number }>(
    'SELECT segments, algorithm_version FROM segment_choice WHERE clip_sha256 = $1 ORDER BY id DESC LIMIT 1',
    [sha256],
  );
  return row ?? null;
}
