import type { AboutListener, Answer, NewTest, TrialDocument, Words } from '#contracts/listening';
import type { Queryable, SqlValue } from '../../platform/db/database';
import type { ItemRow } from '#domain/listening/test-item';
import type { SittingRow } from '#domain/listening/sitting';

export interface TestDbRow {
  readonly id: string;
  readonly document: unknown;
  readonly status: 'preparing' | 'failed' | 'open' | 'closed';
  readonly problem: string | null;
  readonly invitation: string;
  /** Of the server alone: heats and orders are drawn from it. */
  readonly secret: string;
  readonly revealed_at: Date | null;
  readonly day: string;
  readonly listeners: number;
  readonly finished: number;
}

const TEST_COLUMNS = `lt.id, lt.document, lt.status, lt.problem, lt.invitation, lt.secret, lt.revealed_at, lt.held_on AS day,
            (SELECT count(*)::int FROM sitting si WHERE si.test_id = lt.id) AS listeners,
            (SELECT count(*)::int FROM sitting si WHERE si.test_id = lt.id AND si.finished_at IS NOT NULL) AS finished`;

export async function insertTest(
  db: Queryable,
  test: NewTest,
  status: TestDbRow['status'],
  invitation: string,
  secret: string,
  day: string,
): Promise<string> {
  const [row] = await db.query<{ id: string }>(
    'INSERT INTO listening_test (document, status, invitation, secret, held_on) VALUES ($1, $2, $3, $4, $5) RETURNING id',
    [JSON.stringify(test), status, invitation, secret, day],
  );
  return row.id;
}

export async function listTests(db: Queryable): Promise<TestDbRow[]> {
  return db.query(`SELECT ${TEST_COLUMNS} FROM listening_test lt ORDER BY lt.held_on DESC, lt.id DESC`);
}

export async function findTest(db: Queryable, id: string): Promise<TestDbRow | null> {
  return testWhere(db, 'lt.id = $1', id);
}

export async function findTestByInvitation(db: Queryable, invitation: string): Promise<TestDbRow | null> {
  return testWhere(db, 'lt.invitation = $1', invitation);
}

async function testWhere(db: Queryable, condition: string, value: SqlValue): Promise<TestDbRow | null> {
  const rows = await db.query<TestDbRow>(`SELECT ${TEST_COLUMNS} FROM listening_test lt WHERE ${condition}`, [value]);
  return rows.at(0) ?? null;
}

export async function setTestStatus(
  db: Queryable,
  id: string,
  status: TestDbRow['status'],
  problem: string | null = null,
): Promise<void> {
  await db.query('UPDATE listening_test SET status = $2, problem = $3 WHERE id = $1', [id, status, problem]);
}

export async function setRevealed(db: Queryable, id: string, at: Date): Promise<void> {
  await db.query("UPDATE listening_test SET revealed_at = coalesce(revealed_at, $2), status = 'closed' WHERE id = $1", [
    id,
    at,
  ]);
}

/** Tests whose preparation a stop interrupted. */
export async function interruptedTests(db: Queryable): Promise<{ id: string }[]> {
  return db.query("SELECT id FROM listening_test WHERE status = 'preparing'");
}

export async function insertItem(
  db: Queryable,
  item: Pick<ItemRow, 'test_id' | 'ordinal' | 'specimen_id' | 'take_id' | 'role'>,
): Promise<string> {
  const [row] = await db.query<{ id: string }>(
    'INSERT INTO test_item (test_id, ordinal, specimen_id, take_id, role) VALUES ($1, $2, $3, $4, $5) RETURNING id',
    [item.test_id, item.ordinal, item.specimen_id, item.take_id, item.role],
  );
  return row.id;
}

export async function setItemLevel(db: Queryable, id: string, gainDb: number, loudnessLufs: number): Promise<void> {
  await db.query('UPDATE test_item SET gain_db = $2, loudness_lufs = $3 WHERE id = $1', [id, gainDb, loudnessLufs]);
}

/** Items of a test in their order; where they are of several steps, each says of which. */
export async function itemsOfTest(db: Queryable, testId: string): Promise<ItemRow[]> {
  return db.query(
    `SELECT i.id, i.test_id, i.ordinal, i.specimen_id, i.take_id, i.role, i.gain_db, i.loudness_lufs,
            u.name || CASE WHEN min(t.step_id) OVER () < max(t.step_id) OVER () THEN ', ' || st.title ELSE '' END AS name
     FROM test_item i JOIN unit u ON u.id = i.specimen_id
     LEFT JOIN every_take t ON t.id = i.take_id LEFT JOIN step st ON st.id = t.step_id
     WHERE i.test_id = $1 ORDER BY i.ordinal`,
    [testId],
  );
}

/** The listener whom the operator notes under a name; whoever joined by a link has a key, and is never meant. */
export async function ensureListener(db: Queryable, name: string): Promise<string> {
  const [known] = await db.query<{ id: string }>(
    'SELECT id FROM listener WHERE name = $1 AND key IS NULL ORDER BY id LIMIT 1',
    [name],
  );
  return known?.id ?? (await insertListener(db, name, null));
}

/** Somebody new, known by a key from now on. */
export async function insertListener(db: Queryable, name: string, key: string | null): Promise<string> {
  const sql = 'INSERT INTO listener (name, key) VALUES ($1, $2) RETURNING id';
  return (await db.query<{ id: string }>(sql, [name, key]))[0].id;
}

export async function findListenerByKey(db: Queryable, key: string): Promise<{ id: string; name: string } | null> {
  return (
    (await db.query<{ id: string; name: string }>('SELECT id, name FROM listener WHERE key = $1', [key])).at(0) ?? null
  );
}

/**
 * Notes that two records are one person (null: that they are not). Whoever was the same as the first is now the same
 * as the other.
 *
 * @returns whether both are there
 */
export async function setSameListener(db: Queryable, id: string, other: string | null): Promise<boolean> {
  const rows = await db.query(
    `UPDATE listener SET same_as = (SELECT coalesce(o.same_as, o.id) FROM listener o WHERE o.id = $2::bigint)
     WHERE (id = $1 OR ($2::bigint IS NOT NULL AND same_as = $1))
       AND ($2::bigint IS NULL OR EXISTS (SELECT 1 FROM listener o WHERE o.id = $2::bigint AND coalesce(o.same_as, o.id) <> $1))
     RETURNING id`,
    [id, other],
  );
  return rows.length > 0;
}

/** What a listener said of themselves; null takes it away. */
export async function setAbout(db: Queryable, listenerId: string, about: AboutListener | null): Promise<void> {
  await db.query('UPDATE listener SET about = $2 WHERE id = $1', [
    listenerId,
    about === null ? null : JSON.stringify(about),
  ]);
}

/** Two listeners of one test may want the same name; results tell them apart by a number. */
const LISTENER_LABEL = `l.name || (SELECT CASE WHEN count(*) > 0 THEN ' (' || count(*) + 1 || ')' ELSE '' END
            FROM sitting sx JOIN listener lx ON lx.id = sx.listener_id
            WHERE sx.test_id = si.test_id AND lx.name = l.name AND sx.ordinal < si.ordinal)`;
const SITTING_COLUMNS = `si.id, si.test_id, si.listener_id, ${LISTENER_LABEL} AS listener, l.about, l.same_as, si.ordinal, si.key,
            si.secret, si.headphones, si.finished_at, si.left_out, si.reliability, si.came_as`;
const SITTING_TABLES = 'sitting si JOIN listener l ON l.id = si.listener_id';

/** Adds a sitting, or gives the one that this listener has begun. */
export async function ensureSitting(
  db: Queryable,
  testId: string,
  listenerId: string,
  key: string,
  secret: string,
): Promise<{ row: SittingRow; isNew: boolean }> {
  const inserted = await db.query<{ id: string }>(
    `INSERT INTO sitting (test_id, listener_id, ordinal, key, secret)
     VALUES ($1, $2, (SELECT count(*)::int FROM sitting WHERE test_id = $1), $3, $4)
     ON CONFLICT DO NOTHING RETURNING id`,
    [testId, listenerId, key, secret],
  );
  const [row] = await db.query<SittingRow>(
    `SELECT ${SITTING_COLUMNS} FROM ${SITTING_TABLES} WHERE si.test_id = $1 AND si.listener_id = $2`,
    [testId, listenerId],
  );
  return { row, isNew: inserted.length > 0 };
}

/** Notes what an answer that came back looked like. */
export async function setCameAs(db: Queryable, sittingId: string, cameAs: string): Promise<void> {
  await db.query('UPDATE sitting SET came_as = $2 WHERE id = $1', [sittingId, cameAs]);
}

export async function findSitting(db: Queryable, key: string): Promise<SittingRow | null> {
  const rows = await db.query<SittingRow>(`SELECT ${SITTING_COLUMNS} FROM ${SITTING_TABLES} WHERE si.key = $1`, [key]);
  return rows.at(0) ?? null;
}

export async function sittingsOfTest(db: Queryable, testId: string): Promise<SittingRow[]> {
  return db.query(`SELECT ${SITTING_COLUMNS} FROM ${SITTING_TABLES} WHERE si.test_id = $1 ORDER BY si.ordinal`, [
    testId,
  ]);
}

export async function setHeadphones(db: Queryable, sittingId: string, headphones: unknown): Promise<void> {
  await db.query('UPDATE sitting SET headphones = $2 WHERE id = $1', [sittingId, JSON.stringify(headphones)]);
}

export async function finishSitting(db: Queryable, sittingId: string, at: Date): Promise<void> {
  await db.query('UPDATE sitting SET finished_at = coalesce(finished_at, $2) WHERE id = $1', [sittingId, at]);
}

export async function setLeftOut(db: Queryable, sittingId: string, reason: string | null): Promise<void> {
  await db.query('UPDATE sitting SET left_out = $2 WHERE id = $1', [sittingId, reason]);
}

export interface TrialRow {
  readonly id: string;
  readonly sitting_id: string;
  readonly ordinal: number;
  readonly document: unknown;
  readonly answer: unknown;
  readonly words: unknown;
  readonly seconds: number | null;
  /** How often each clip went out, by its letter. */
  readonly delivered: Readonly<Partial<Record<string, number>>>;
}
const TRIAL_COLUMNS = 'tr.id, tr.sitting_id, tr.ordinal, tr.document, tr.answer, tr.words, tr.seconds, tr.delivered';

/** Notes that clips of a trial went out. */
export async function noteDeliveries(db: Queryable, trialId: string, slots: readonly string[]): Promise<void> {
  for (const slot of slots)
    await db.query(
      `UPDATE trial SET delivered = delivered || jsonb_build_object($2::text, coalesce((delivered->>$2)::int, 0) + 1) WHERE id = $1`,
      [trialId, slot],
    );
}

export async function addTrials(
  db: Queryable,
  sittingId: string,
  from: number,
  trials: readonly TrialDocument[],
): Promise<void> {
  for (const [i, trial] of trials.entries())
    await db.query('INSERT INTO trial (sitting_id, ordinal, document) VALUES ($1, $2, $3)', [
      sittingId,
      from + i,
      JSON.stringify(trial),
    ]);
}

export async function trialsOfSitting(db: Queryable, sittingId: string): Promise<TrialRow[]> {
  return db.query(`SELECT ${TRIAL_COLUMNS} FROM trial tr WHERE tr.sitting_id = $1 ORDER BY tr.ordinal`, [sittingId]);
}

export async function trialsOfTest(db: Queryable, testId: string): Promise<TrialRow[]> {
  return db.query(
    `SELECT ${TRIAL_COLUMNS} FROM trial tr JOIN sitting si ON si.id = tr.sitting_id
     WHERE si.test_id = $1 ORDER BY si.ordinal, tr.ordinal`,
    [testId],
  );
}

/** Keeps an answer, unless there is one. @returns whether it was kept */
export async function answerTrial(
  db: Queryable,
  trialId: string,
  answer: Answer,
  words: Words,
  seconds: number,
  at: Date,
): Promise<boolean> {
  const rows = await db.query(
    `UPDATE trial SET answer = $2, words = $3, seconds = $4, answered_at = $5
     WHERE id = $1 AND answered_at IS NULL RETURNING id`,
    [trialId, JSON.stringify(answer), JSON.stringify(words), seconds, at],
  );
  return rows.length > 0;
}
