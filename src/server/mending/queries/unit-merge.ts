import type { AnswerPlace, ComparedRun, MergedAnswers, NamedAnswer } from '#domain/mending/merge-plan';
import { among } from '../../platform/db/among';
import type { Queryable } from '../../platform/db/database';

/** Tables that hold facts of a unit, by `specimen_id`. `mending.test.ts` asks the database for others. */
export const TABLES_OF_UNITS = [
  'every_run',
  'custody',
  'every_price',
  'points',
  'sheet_entry',
  'unit_event',
  'unit_relation',
  'photograph',
  'test_item',
  'heard_word',
  'review',
  'family_counting',
] as const;
type TableOfUnits = (typeof TABLES_OF_UNITS)[number];

/** What a merge has moved, as it is kept. */
export interface MovedRows {
  /** Ids by table. */
  readonly rows: Readonly<Partial<Record<TableOfUnits, readonly string[]>>>;
  /** Where answers named it. */
  readonly answers: readonly AnswerPlace[];
  /** Answers that stopped counting. */
  readonly dropped: readonly string[];
  /** Runs that stopped counting: the other unit has the same. */
  readonly leftOut: readonly string[];
  /** Relations of other units to it. */
  readonly relations: readonly string[];
  /** Units that were part of the one that was moved. */
  readonly parts: readonly string[];
  /** Configurations of it. Merges from before there were any do not name them. */
  readonly variants?: readonly string[];
}

/** What a unit has been merged into; null where it stands by itself. */
export async function mergedInto(db: Queryable, id: string): Promise<string | null> {
  const [row] = await db.query<{ merged_into: string | null }>('SELECT merged_into FROM every_specimen WHERE id = $1', [
    id,
  ]);
  return (row as { merged_into: string | null } | undefined)?.merged_into ?? null;
}

/** Names of a unit, whether it is part of another one or not. */
export async function everyNameOf(
  db: Queryable,
  id: string,
): Promise<{ maker: string; model: string; label: string; category: string } | null> {
  const rows = await db.query<{ maker: string; model: string; label: string; category: string }>(
    `SELECT m.maker, m.name AS model, s.label, m.category FROM every_specimen s JOIN model m ON m.id = s.model_id
     WHERE s.id = $1`,
    [id],
  );
  return rows.at(0) ?? null;
}

/** Names of units of a kind that are part of another one, and which one they mean. */
export async function namesOfParts(
  db: Queryable,
  category: string,
): Promise<{ readonly name: string; readonly id: string }[]> {
  return db.query(
    `SELECT m.maker || ' ' || m.name || ' · ' || s.label AS name, s.merged_into AS id
     FROM every_specimen s JOIN model m ON m.id = s.model_id
     WHERE s.merged_into IS NOT NULL AND m.category = $1`,
    [category],
  );
}

/** Answers that name a unit, whether they count or not. */
export async function answersNaming(
  db: Queryable,
  specimenId: string,
): Promise<(NamedAnswer & { readonly counts: boolean })[]> {
  return db.query(
    'SELECT id, specimens, removed_at IS NULL AS counts FROM heard_answer WHERE specimens ? $1 ORDER BY id',
    [specimenId],
  );
}

/** Runs of two units that count. */
export async function comparedRuns(db: Queryable, ids: readonly [string, string]): Promise<ComparedRun[]> {
  return db.query(
    `SELECT r.id, r.specimen_id AS "specimenId", se.held_on AS day, r.protocol_version_id AS "protocolVersionId", r.purpose,
            coalesce((SELECT json_agg(t.step_id || ' ' || t.clip_sha256) FROM take t WHERE t.run_id = r.id), '[]') AS takes
     FROM run r JOIN session se ON se.id = r.session_id
     WHERE r.specimen_id IN ($1, $2) ORDER BY r.id`,
    ids,
  );
}

/** Rigs that a unit is, or was, the control unit of. */
export async function rigsControlledBy(db: Queryable, units: readonly string[]): Promise<string[]> {
  const rows = await db.query<{ name: string }>(
    `SELECT DISTINCT name FROM rig WHERE $1::jsonb ? coalesce(document->>'controlUnit', '') ORDER BY name`,
    [JSON.stringify(units)],
  );
  return rows.map((r) => r.name);
}

/** Tests that can still be answered and offer both units. */
export async function openTestsWithBoth(db: Queryable, ids: readonly [string, string]): Promise<string[]> {
  const rows = await db.query<{ name: string }>(
    `SELECT lt.document->>'name' AS name FROM listening_test lt
     WHERE lt.status IN ('preparing', 'open')
       AND (SELECT count(DISTINCT i.specimen_id) FROM test_item i WHERE i.test_id = lt.id AND i.specimen_id IN ($1, $2)) = 2
     ORDER BY lt.id`,
    ids,
  );
  return rows.map((r) => r.name);
}

/** Makes everything of one unit that of another. A price that both have stays where it is: it is one price. */
export async function moveEverything(
  db: Queryable,
  unit: string,
  into: string,
  answers: MergedAnswers,
  leftOut: readonly string[],
  at: Date,
): Promise<void> {
  await leaveRunsOut(db, leftOut, true);
  const rows: Partial<Record<TableOfUnits, string[]>> = {};
  for (const table of TABLES_OF_UNITS) {
    const onlyNew =
      table === 'every_price'
        ? `AND NOT EXISTS (SELECT 1 FROM every_price o WHERE o.specimen_id = $2 AND o.kind = every_price.kind
             AND o.currency = every_price.currency AND o.effective_on = every_price.effective_on
             AND o.amount = every_price.amount AND o.region = every_price.region AND o.shop = every_price.shop
             AND o.tax IS NOT DISTINCT FROM every_price.tax)`
        : '';
    const moved = await db.query<{ id: string }>(
      `UPDATE ${table} SET specimen_id = $2 WHERE specimen_id = $1 ${onlyNew} RETURNING id`,
      [unit, into],
    );
    rows[table] = moved.map((r) => r.id);
  }
  await nameUnit(db, answers.renamed, unit, into);
  await countAnswers(db, answers.dropped, at);
  const relations = await db.query<{ id: string }>(
    'UPDATE unit_relation SET other_id = $2 WHERE other_id = $1 RETURNING id',
    [unit, into],
  );
  const parts = await db.query<{ id: string }>(
    'UPDATE every_specimen SET merged_into = $2 WHERE merged_into = $1 RETURNING id',
    [unit, into],
  );
  const variants = await db.query<{ id: string }>(
    'UPDATE every_specimen SET variant_of = $2 WHERE variant_of = $1 AND id <> $2 RETURNING id',
    [unit, into],
  );
  await db.query('UPDATE every_specimen SET merged_into = $2 WHERE id = $1', [unit, into]);
  const moved: MovedRows = {
    rows,
    answers: answers.renamed,
    dropped: answers.dropped,
    leftOut,
    relations: relations.map((r) => r.id),
    parts: parts.map((p) => p.id),
    variants: variants.map((v) => v.id),
  };
  await db.query('INSERT INTO unit_merge (specimen_id, into_id, moved, made_at) VALUES ($1, $2, $3, $4)', [
    unit,
    into,
    JSON.stringify(moved),
    at,
  ]);
}

/** The merge that a unit is part of another by. */
export async function findMerge(
  db: Queryable,
  unit: string,
): Promise<{ readonly id: string; readonly into_id: string; readonly moved: MovedRows } | null> {
  const rows = await db.query<{ id: string; into_id: string; moved: MovedRows }>(
    'SELECT id, into_id, moved FROM unit_merge WHERE specimen_id = $1 AND apart_at IS NULL ORDER BY id DESC LIMIT 1',
    [unit],
  );
  return rows.at(0) ?? null;
}

/** Takes two units apart again: what was moved goes back, as far as it is still where it was moved to. */
export async function moveBack(
  db: Queryable,
  unit: string,
  merge: NonNullable<Awaited<ReturnType<typeof findMerge>>>,
  at: Date,
): Promise<void> {
  const { into_id, moved } = merge;
  for (const table of TABLES_OF_UNITS) {
    const { sql, values } = among(moved.rows[table] ?? [], 'id', 3);
    await db.query(`UPDATE ${table} SET specimen_id = $1 WHERE specimen_id = $2 ${sql}`, [unit, into_id, ...values]);
  }
  const relations = among(moved.relations, 'id', 3);
  await db.query(`UPDATE unit_relation SET other_id = $1 WHERE other_id = $2 ${relations.sql}`, [
    unit,
    into_id,
    ...relations.values,
  ]);
  await leaveRunsOut(db, moved.leftOut, false);
  await nameUnit(db, moved.answers, into_id, unit);
  await countAnswers(db, moved.dropped, null);
  await db.query('UPDATE every_specimen SET merged_into = NULL WHERE id = $1', [unit]);
  const parts = among(moved.parts, 'id', 2);
  await db.query(`UPDATE every_specimen SET merged_into = $1 WHERE true ${parts.sql}`, [unit, ...parts.values]);
  const variants = among(moved.variants ?? [], 'id', 3);
  await db.query(`UPDATE every_specimen SET variant_of = $1 WHERE variant_of = $2 ${variants.sql}`, [
    unit,
    into_id,
    ...variants.values,
  ]);
  await db.query('UPDATE unit_merge SET apart_at = $2 WHERE id = $1', [merge.id, at]);
}

async function leaveRunsOut(db: Queryable, ids: readonly string[], isOut: boolean): Promise<void> {
  const { sql, values } = among(ids, 'id', 2);
  await db.query(`UPDATE every_run SET left_out = $1 WHERE true ${sql}`, [isOut, ...values]);
}

/** Only this name in them: the other units of an answer may have been merged since. */
async function nameUnit(db: Queryable, places: readonly AnswerPlace[], from: string, to: string): Promise<void> {
  await db.query(
    `UPDATE heard_answer h SET specimens = jsonb_set(h.specimens, ARRAY[p.index::text], to_jsonb($3::text))
     FROM jsonb_to_recordset($1::jsonb) AS p (id bigint, index int)
     WHERE h.id = p.id AND h.specimens->>p.index = $2`,
    [JSON.stringify(places), from, to],
  );
}

async function countAnswers(db: Queryable, ids: readonly string[], removedAt: Date | null): Promise<void> {
  const { sql, values } = among(ids, 'id', 2);
  await db.query(`UPDATE heard_answer SET removed_at = $1 WHERE true ${sql}`, [removedAt, ...values]);
}
