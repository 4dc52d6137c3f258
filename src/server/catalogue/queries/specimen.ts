import { categorySchema, type Category } from '#contracts/common';
import type { RunDocument } from '#contracts/run-document';
import { unitKey } from '#contracts/unit-name';
import { among, upTo } from '../../platform/db/among';
import type { Queryable } from '../../platform/db/database';
import { findVariant, setVariant } from './variant';
import type { SpecimenBase } from '#domain/catalogue/specimen-base';

/** Finds or creates a model. */
export async function ensureModel(
  db: Queryable,
  { maker, model, category }: Pick<RunDocument['specimen'], 'maker' | 'model' | 'category'>,
): Promise<string> {
  await db.query('INSERT INTO model (maker, name, category) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING', [
    maker,
    model,
    category,
  ]);
  const [{ id }] = await db.query<{ id: string }>(
    'SELECT id FROM model WHERE maker = $1 AND name = $2 AND category = $3',
    [maker, model, category],
  );
  return id;
}

/** Finds or creates the model and the specimen of a run. */
export async function ensureSpecimen(db: Queryable, specimen: RunDocument['specimen']): Promise<string> {
  const modelId = await ensureModel(db, specimen);
  const { label } = specimen;
  const [created] = await db.query<{ id: string }>(
    'INSERT INTO specimen (model_id, label) VALUES ($1, $2) ON CONFLICT DO NOTHING RETURNING id',
    [modelId, label],
  );
  if (created) {
    if (specimen.variantOf) await makeVariant(db, created.id, specimen, specimen.variantOf);
    return created.id;
  }
  const [found] = await db.query<{ id: string }>(
    'SELECT coalesce(merged_into, id) AS id FROM every_specimen WHERE model_id = $1 AND label = $2',
    [modelId, label],
  );
  return found.id;
}

/** What has just been added is a configuration of another unit of the model; one of a configuration is one of its unit. */
async function makeVariant(
  db: Queryable,
  id: string,
  { maker, model, category }: RunDocument['specimen'],
  { label, configuration, varies }: NonNullable<RunDocument['specimen']['variantOf']>,
): Promise<void> {
  const named = await ensureSpecimen(db, { maker, model, category, label });
  const of = (await findVariant(db, named))?.variant_of ?? named;
  await setVariant(db, id, { of, configuration, varies });
}

/** Id of a specimen by its names, or null where it has never been tested; of one that is part of another, the other. */
export async function findSpecimen(db: Queryable, specimen: RunDocument['specimen']): Promise<string | null> {
  const [row] = await db.query<{ id: string }>(
    `SELECT coalesce(s.merged_into, s.id) AS id FROM every_specimen s JOIN model m ON m.id = s.model_id
     WHERE m.maker = $1 AND m.name = $2 AND m.category = $3 AND s.label = $4`,
    [specimen.maker, specimen.model, specimen.category, specimen.label],
  );
  return row?.id ?? null;
}

/** Ids of specimens of one kind by their names; those that have never been tested are not in it. */
export async function findSpecimens(
  db: Queryable,
  category: string,
  units: readonly Pick<RunDocument['specimen'], 'maker' | 'model' | 'label'>[],
): Promise<ReadonlyMap<string, string>> {
  const names = units.map(({ maker, model, label }) => ({ maker, model, label }));
  const rows = await db.query<{ id: string; maker: string; model: string; label: string }>(
    `SELECT coalesce(s.merged_into, s.id) AS id, u.maker, u.model, u.label
     FROM jsonb_to_recordset($1::jsonb) AS u (maker text, model text, label text)
     JOIN model m ON m.maker = u.maker AND m.name = u.model AND m.category = $2
     JOIN every_specimen s ON s.model_id = m.id AND s.label = u.label`,
    [JSON.stringify(names), category],
  );
  return new Map(rows.map((row) => [unitKey(row), row.id]));
}

/**
 * All specimens, or some, by maker, model and label, as they stand or as they stood on a day. Counts of analyses are those
 * of the given algorithm version.
 */
export async function listSpecimens(
  db: Queryable,
  algorithmVersion: number,
  ids: readonly string[] | null = null,
  until: string | null = null,
): Promise<SpecimenBase[]> {
  const [ofRun, ofCustody, ofUnit, ofReview] = ['r.specimen_id', 'specimen_id', 'u.id', 'v.specimen_id'].map(
    (c) => among(ids, c, 2).sql,
  );
  const [byRun, byCustody, byEdition, byReview, byCounting] = [
    'se.held_on',
    'effective_on',
    'e.published_on',
    'v.opened_on',
    'effective_on',
  ].map((c) => upTo(until, c, ids === null ? 2 : 3).sql);
  return db.query<SpecimenBase>(
    `WITH counted AS (
       SELECT r.specimen_id,
              min(se.held_on) AS first_tested,
              max(se.held_on) AS last_tested,
              count(t.id)::int AS takes,
              count(*) FILTER (WHERE a.status = 'failed')::int AS failed,
              count(*) FILTER (WHERE a.status IN ('queued', 'running'))::int AS waiting
       FROM run r
       JOIN session se ON se.id = r.session_id
       LEFT JOIN take t ON t.run_id = r.id
       LEFT JOIN analysis a ON a.clip_sha256 = t.clip_sha256 AND a.algorithm_version = $1
       WHERE true ${ofRun} ${byRun}
       GROUP BY r.specimen_id
     ), standing AS (
       SELECT DISTINCT ON (specimen_id) specimen_id, on_desk FROM custody WHERE true ${ofCustody} ${byCustody}
       ORDER BY specimen_id, id DESC
     ), written AS (
       SELECT DISTINCT ON (v.specimen_id) v.specimen_id, v.id AS review_id, e.published_on::text AS published_on
       FROM review v
       LEFT JOIN edition e ON e.review_id = v.id ${byEdition}
       WHERE true ${ofReview} ${byReview}
       ORDER BY v.specimen_id, e.published_on DESC NULLS LAST, v.id DESC
     ), counting AS (
       SELECT DISTINCT ON (specimen_id) specimen_id, counts_id FROM family_counting WHERE true ${byCounting}
       ORDER BY specimen_id, id DESC
     )
     SELECT u.id, u.maker, u.model, u.label, u.category, u.variant_of, u.configuration, u.varies,
            (SELECT count(*)::int FROM specimen v WHERE v.variant_of = u.id) AS variants,
            CASE WHEN fc.specimen_id IS NULL OR (fc.counts_id IS NOT NULL AND cu.id IS NULL) THEN u.variant_of IS NULL
                 ELSE coalesce(fc.counts_id = u.id, true) END AS counts,
            coalesce(st.on_desk, false) AS on_desk,
            c.first_tested, c.last_tested, w.review_id, w.published_on,
            coalesce(c.takes, 0) AS takes, coalesce(c.failed, 0) AS failed, coalesce(c.waiting, 0) AS waiting
     FROM unit u
     LEFT JOIN counted c ON c.specimen_id = u.id
     LEFT JOIN standing st ON st.specimen_id = u.id
     LEFT JOIN written w ON w.specimen_id = u.id
     LEFT JOIN counting fc ON fc.specimen_id = coalesce(u.variant_of, u.id)
     -- One that stands by itself now counts for others no more.
     LEFT JOIN specimen cu ON cu.id = fc.counts_id AND coalesce(cu.variant_of, cu.id) = fc.specimen_id
     WHERE true ${ofUnit}
     ORDER BY u.maker, u.model, u.label, u.id`,
    [algorithmVersion, ...among(ids, '', 2).values, ...upTo(until, '', 2).values],
  );
}

/** All specimens in the order of lists: maker, model, label. */
export async function specimensInOrder(
  db: Queryable,
): Promise<{ readonly id: string; readonly category: string; readonly name: string }[]> {
  return db.query(
    `SELECT u.id, u.category, u.name
     FROM unit u ORDER BY u.maker, u.model, u.label, u.id`,
  );
}

/** Notes that a unit came to the desk or left it; a configuration is where its unit is. */
export async function noteCustody(db: Queryable, specimenId: string, onDesk: boolean, day: string): Promise<void> {
  await db.query(
    `INSERT INTO custody (specimen_id, on_desk, effective_on)
     SELECT coalesce(variant_of, id), $2::boolean, $3::date FROM every_specimen WHERE id = $1`,
    [specimenId, onDesk, day],
  );
}

/** The kind of gear of a unit; null where there is no such unit. */
export async function unitKind(db: Queryable, id: string): Promise<Category | null> {
  const [row] = await db.query<{ category: string }>('SELECT category FROM unit WHERE id = $1', [id]);
  return row ? categorySchema.parse(row.category) : null;
}

export async function specimenExists(db: Queryable, id: string): Promise<boolean> {
  return (await db.query('SELECT 1 FROM specimen WHERE id = $1', [id])).length > 0;
}
