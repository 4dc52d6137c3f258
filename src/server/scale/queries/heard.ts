import type { Queryable } from '../../platform/db/database';
import type { HeardAnswer } from '#domain/scale/heard-answer';

/** Rows that one statement takes. */
const BATCH = 500;

/** Keeps answers, in the order given; call it in a transaction, so that a failure keeps none. */
export async function insertHeard(db: Queryable, answers: readonly HeardAnswer[]): Promise<void> {
  for (let from = 0; from < answers.length; from += BATCH)
    await db.query(
      `INSERT INTO heard_answer (trial_id, listener_id, source, import_key, attribute, voice, purpose, category, specimens,
                                 outcome, ties_allowed, weight, circumstances, sighted, held_on, placing_id)
       SELECT "trialId", "listenerId", source, "importKey", attribute, voice, "use", category, specimens, outcome,
              "tiesAllowed", weight, circumstances, sighted, day, "placingId"
       FROM ROWS FROM (jsonb_to_recordset($1::jsonb) AS (
         "trialId" bigint, "listenerId" bigint, source text, "importKey" text, attribute text, voice text, "use" text,
         category text, specimens jsonb, outcome float8, "tiesAllowed" boolean, weight float8, circumstances jsonb,
         sighted boolean, day date, "placingId" text)) WITH ORDINALITY
       ORDER BY ordinality`,
      [JSON.stringify(answers.slice(from, from + BATCH))],
    );
}

export interface HeardRow {
  readonly id: string;
  readonly listener_id: string | null;
  readonly specimens: readonly string[];
  readonly outcome: 1 | 0.5 | 0 | null;
  readonly ties_allowed: boolean;
  readonly weight: number;
  readonly circumstances: readonly (readonly [number, number, 0 | 1])[];
  readonly sighted: boolean;
  readonly voice: string | null;
  readonly use: string | null;
  readonly day: string;
}

/**
 * Answers of a category and attribute that count, oldest first, after one of them. Of sittings that were left out, none
 * does; those that came back from outside weigh by how likely it is that somebody listened.
 */
export async function heardAnswers(
  db: Queryable,
  category: string,
  attribute: string,
  after = '0',
): Promise<HeardRow[]> {
  return db.query(
    `SELECT h.id, coalesce(l.same_as, h.listener_id) AS listener_id, h.specimens, h.outcome, h.ties_allowed, h.weight * coalesce(si.reliability, 1) AS weight, h.circumstances, h.sighted, h.voice,
            h.purpose AS use, h.held_on AS day
     FROM heard_answer h
     LEFT JOIN listener l ON l.id = h.listener_id
     LEFT JOIN trial tr ON tr.id = h.trial_id
     LEFT JOIN sitting si ON si.id = tr.sitting_id
     WHERE h.category = $1 AND h.attribute = $2 AND h.id > $3::bigint AND h.removed_at IS NULL AND si.left_out IS NULL
       AND h.weight * coalesce(si.reliability, 1) > 0
     ORDER BY h.id`,
    [category, attribute, after],
  );
}

export async function hasImport(db: Queryable, importKey: string): Promise<boolean> {
  return (await db.query('SELECT 1 FROM heard_answer WHERE import_key = $1 LIMIT 1', [importKey])).length > 0;
}

/** Which answers of a placing are meant: those of one listener, of one unit, about one attribute. */
export interface PlacingOf {
  readonly placingId: string;
  readonly specimenId: string;
  readonly listenerId: string;
  readonly attribute: string;
}

/** Takes back the newest answer that a listener gave in a placing: a slip of the hand. */
export async function removeLastPlacing(db: Queryable, of: PlacingOf, at: Date): Promise<boolean> {
  const rows = await db.query(
    `UPDATE heard_answer SET removed_at = $5 WHERE id = (
       SELECT id FROM heard_answer
       WHERE source = 'placing' AND removed_at IS NULL AND placing_id = $1 AND specimens ? $2 AND listener_id = $3
         AND attribute = $4
       ORDER BY id DESC LIMIT 1)
     RETURNING id`,
    [of.placingId, of.specimenId, of.listenerId, of.attribute, at],
  );
  return rows.length > 0;
}

/** What was said of a unit: words of the vocabulary, and own ones. */
export interface SaidWords {
  readonly words: readonly string[];
  readonly free: string;
}

/** Where words come from: a trial of somebody’s, or a note of a live panel, of nobody in particular if need be. */
export interface WordsOf {
  readonly trialId: string | null;
  readonly panelEntryId?: string;
  readonly listenerId: string | null;
  readonly specimenId: string;
  readonly day: string;
}

export async function insertWords(db: Queryable, of: WordsOf, said: SaidWords): Promise<void> {
  const all = [...said.words.map((word) => ({ word, isFree: false })), ...(said.free ? [{ word: said.free, isFree: true }] : [])]; // prettier-ignore
  for (const { word, isFree } of all)
    await db.query(
      'INSERT INTO heard_word (trial_id, listener_id, specimen_id, word, is_free, held_on, panel_entry_id) VALUES ($1, $2, $3, $4, $5, $6, $7)',
      [of.trialId, of.listenerId, of.specimenId, word, isFree, of.day, of.panelEntryId ?? null],
    );
}

export interface WordCount {
  readonly specimen_id: string;
  readonly name: string;
  readonly word: string;
  readonly is_free: boolean;
  readonly count: number;
}

/** How often each word was said of each unit; of one unit, or of all of a category. */
export async function wordCounts(
  db: Queryable,
  where: { readonly category?: string; readonly specimenId?: string; readonly testId?: string },
): Promise<WordCount[]> {
  return db.query(
    `SELECT w.specimen_id, u.name AS name, w.word, w.is_free, count(*)::int AS count
     FROM heard_word w
     JOIN unit u ON u.id = w.specimen_id
     LEFT JOIN trial tr ON tr.id = w.trial_id
     LEFT JOIN panel_entry pe ON pe.id = w.panel_entry_id
     LEFT JOIN sitting si ON si.id = coalesce(tr.sitting_id, pe.sitting_id)
     WHERE si.left_out IS NULL AND ($1::text IS NULL OR u.category = $1) AND ($2::bigint IS NULL OR w.specimen_id = $2)
       AND ($3::bigint IS NULL OR coalesce(si.test_id, pe.test_id) = $3)
     GROUP BY w.specimen_id, u.name, w.word, w.is_free
     ORDER BY count(*) DESC, w.word`,
    [where.category ?? null, where.specimenId ?? null, where.testId ?? null],
  );
}

/** How often words could have been said: answered trials that ask for words, in which each unit was offered. */
export async function hearings(db: Queryable, category: string): Promise<{ specimen_id: string; count: number }[]> {
  return db.query(
    `SELECT i.specimen_id, count(*)::int AS count
     FROM trial tr
     JOIN sitting si ON si.id = tr.sitting_id AND si.left_out IS NULL
     JOIN listening_test lt ON lt.id = si.test_id AND (lt.document->>'askWords')::boolean
     CROSS JOIN LATERAL jsonb_array_elements_text(tr.document->'items') AS offered (item)
     JOIN test_item i ON i.id = offered.item::bigint
     WHERE tr.answered_at IS NOT NULL AND lt.document->>'category' = $1
       AND tr.document->>'kind' IN ('order', 'pair', 'ratings', 'place') AND tr.document->>'control' IS NULL
       AND i.role IN ('unit', 'yardstick', 'reference')
     GROUP BY i.specimen_id`,
    [category],
  );
}

/** Units that a listener has heard in tests. */
export async function heardSpecimens(db: Queryable, listenerId: string): Promise<{ specimen_id: string }[]> {
  return db.query(
    `SELECT DISTINCT i.specimen_id FROM sitting si JOIN test_item i ON i.test_id = si.test_id WHERE si.listener_id = $1`,
    [listenerId],
  );
}

/** What all lines of a file of answers have in common, and who is meant by the names in it. */
export interface ImportedAnswers {
  readonly importKey: string;
  readonly attribute: string;
  readonly category: string;
  readonly tiesAllowed: boolean;
  /** Day of lines that name none. */
  readonly day: string;
  /** Numbers of units, by their names in lower case. */
  readonly units: Readonly<Record<string, string>>;
  readonly listeners: Readonly<Record<string, string>>;
}

/** Keeps a batch of lines of a file, as JSON; call it in a transaction, so that a failure keeps none. */
export async function insertImported(db: Queryable, batch: string, of: ImportedAnswers): Promise<void> {
  await db.query(
    `INSERT INTO heard_answer (listener_id, source, import_key, attribute, category, specimens, outcome, ties_allowed, weight,
                               circumstances, held_on)
     SELECT ($2::jsonb ->> listener)::bigint, 'import', $3, $4, $5,
            jsonb_build_array($6::jsonb ->> winner, $6::jsonb ->> loser), outcome, $7, weight, '[]', coalesce(day, $8::date)
     FROM ROWS FROM (jsonb_to_recordset($1::jsonb) AS (
       winner text, loser text, outcome float8, weight float8, listener text, day date)) WITH ORDINALITY
     ORDER BY ordinality`,
    [
      batch,
      JSON.stringify(of.listeners),
      of.importKey,
      of.attribute,
      of.category,
      JSON.stringify(of.units),
      of.tiesAllowed,
      of.day,
    ],
  );
}
