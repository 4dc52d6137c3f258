import type { Rubric } from '#core/rules/rubric';
import { rubricSchema } from '#contracts/rubric';
import type { Queryable } from '../../platform/db/database';

/** Adds a version of a rubric, unless it is there. Versions are never changed. */
export async function addRubricVersion(db: Queryable, rubric: Rubric): Promise<void> {
  await db.query('INSERT INTO rubric (slug, category) VALUES ($1, $2) ON CONFLICT DO NOTHING', [
    rubric.id,
    rubric.category,
  ]);
  await db.query(
    `INSERT INTO rubric_version (rubric_id, version, document)
     SELECT id, $2, $3 FROM rubric WHERE slug = $1 ON CONFLICT DO NOTHING`,
    [rubric.id, rubric.version, JSON.stringify(rubric)],
  );
}

/** The newest rubric of every category that has one. */
export async function currentRubrics(db: Queryable): Promise<Rubric[]> {
  const rows = await db.query<{ document: unknown }>(
    `SELECT DISTINCT ON (r.category) v.document FROM rubric_version v JOIN rubric r ON r.id = v.rubric_id
     ORDER BY r.category, v.version DESC, v.id DESC`,
  );
  return rows.map((row) => rubricSchema.parse(row.document));
}

/** The newest rubric of a category, with its database id; null where the category has none. */
export async function currentRubric(
  db: Queryable,
  category: string,
): Promise<{ versionId: string; rubric: Rubric } | null> {
  const [row] = await db.query<{ id: string; document: unknown }>(
    `SELECT v.id, v.document FROM rubric_version v JOIN rubric r ON r.id = v.rubric_id
     WHERE r.category = $1 ORDER BY v.version DESC, v.id DESC LIMIT 1`,
    [category],
  );
  return row ? { versionId: row.id, rubric: rubricSchema.parse(row.document) } : null;
}

/** All versions of the rules of a category, newest first, with what was given by hand under each. */
export async function rubricVersions(
  db: Queryable,
  category: string,
): Promise<{ rubric: Rubric; saved_at: Date; points: number }[]> {
  const rows = await db.query<{ document: unknown; saved_at: Date; points: number }>(
    `SELECT v.document, v.recorded_at AS saved_at,
            (SELECT count(*)::int FROM points p WHERE p.rubric_version_id = v.id) AS points
     FROM rubric_version v JOIN rubric r ON r.id = v.rubric_id
     WHERE r.category = $1 ORDER BY v.version DESC, v.id DESC`,
    [category],
  );
  return rows.map((row) => ({ ...row, rubric: rubricSchema.parse(row.document) }));
}
