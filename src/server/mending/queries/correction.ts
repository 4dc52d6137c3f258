import type { Change } from '#contracts/correction';
import type { Queryable } from '../../platform/db/database';

export interface CorrectionRow {
  readonly id: string;
  readonly change: unknown;
  readonly before: unknown;
  readonly text: string;
  readonly reason: string;
  readonly specimens: unknown;
  readonly made_at: Date;
  readonly undone_at: Date | null;
}

export async function addCorrection(
  db: Queryable,
  correction: {
    readonly change: Change;
    readonly before: Change;
    readonly text: string;
    readonly reason: string;
    readonly specimens: readonly string[];
    readonly at: Date;
  },
): Promise<string> {
  const { change, before, text, reason, specimens, at } = correction;
  const [row] = await db.query<{ id: string }>(
    'INSERT INTO correction (change, before, text, reason, specimens, made_at) VALUES ($1, $2, $3, $4, $5, $6) RETURNING id',
    [JSON.stringify(change), JSON.stringify(before), text, reason, JSON.stringify(specimens), at],
  );
  return row.id;
}

/** Newest first; of one unit and of those that are part of it, or all. */
export async function listCorrections(db: Queryable, specimenId: string | null): Promise<CorrectionRow[]> {
  return db.query(
    `SELECT id, change, before, text, reason, specimens, made_at, undone_at FROM correction
     WHERE $1::text IS NULL
        OR specimens ?| ARRAY(SELECT id::text FROM every_specimen WHERE id = $1::bigint OR merged_into = $1::bigint)
     ORDER BY id DESC LIMIT 500`,
    [specimenId],
  );
}

export async function findCorrection(db: Queryable, id: string): Promise<CorrectionRow | null> {
  const rows = await db.query<CorrectionRow>(
    'SELECT id, change, before, text, reason, specimens, made_at, undone_at FROM correction WHERE id = $1',
    [id],
  );
  return rows.at(0) ?? null;
}

export async function markUndone(db: Queryable, id: string, at: Date): Promise<void> {
  await db.query('UPDATE correction SET undone_at = $2 WHERE id = $1', [id, at]);
}

/** Tables whose rows can be left out, each under the name of what counts of it. */
export const LEAVABLE = {
  take: 'every_take',
  run: 'every_run',
  price: 'every_price',
  photograph: 'photograph',
  session: 'every_session_plan',
  test: 'every_listening_test',
} as const;

export async function isLeftOut(db: Queryable, what: keyof typeof LEAVABLE, id: string): Promise<boolean | null> {
  const [row] = await db.query<{ left_out: boolean }>(`SELECT left_out FROM ${LEAVABLE[what]} WHERE id = $1`, [id]);
  return (row as { left_out: boolean } | undefined)?.left_out ?? null;
}

export async function leaveOut(db: Queryable, what: keyof typeof LEAVABLE, id: string, isOut: boolean): Promise<void> {
  await db.query(`UPDATE ${LEAVABLE[what]} SET left_out = $2 WHERE id = $1`, [id, isOut]);
}

/** A take as it can be corrected, with its run. */
export interface CorrectableTake {
  readonly gain_db: number | null;
  readonly distance_m: number | null;
  readonly angle_deg: number | null;
  readonly level_db_spl: number | null;
  readonly level_dbu: number | null;
  readonly wind_speed_ms: number | null;
  readonly settings: unknown;
  readonly note: string;
  readonly run_id: string;
  readonly specimen_id: string;
  readonly day: string;
  readonly step_title: string;
  /** Its clip, and the name that came with it. */
  readonly clip: string;
  readonly clip_name: string;
  /** Takes of its run that count, itself among them. */
  readonly counting: number;
}

export async function correctableTake(db: Queryable, id: string): Promise<CorrectableTake | null> {
  const rows = await db.query<CorrectableTake>(
    `SELECT t.gain_db, t.distance_m, t.angle_deg, t.level_db_spl, t.level_dbu, t.wind_speed_ms, t.settings, t.note, t.run_id, r.specimen_id, se.held_on AS day,
            st.title AS step_title, t.clip_sha256 AS clip, c.original_name AS clip_name, (SELECT count(*)::int FROM take x WHERE x.run_id = t.run_id) AS counting
     FROM every_take t
     JOIN every_run r ON r.id = t.run_id
     JOIN session se ON se.id = r.session_id
     JOIN step st ON st.id = t.step_id
     JOIN clip c ON c.sha256 = t.clip_sha256
     WHERE t.id = $1`,
    [id],
  );
  return rows.at(0) ?? null;
}

export async function correctTake(db: Queryable, change: Extract<Change, { kind: 'take' }>): Promise<void> {
  await db.query(
    `UPDATE every_take SET gain_db = $2, distance_m = $3, angle_deg = $4, settings = $5, note = $6, level_db_spl = $7,
            level_dbu = $8, wind_speed_ms = $9 WHERE id = $1`,
    [
      change.take,
      change.gainDb,
      change.distanceM,
      change.angleDeg,
      JSON.stringify(change.settings),
      change.note,
      change.levelDbSpl ?? null,
      change.levelDbu ?? null,
      change.windSpeedMs ?? null,
    ],
  );
}

export async function putClip(db: Queryable, takeId: string, sha256: string): Promise<void> {
  await db.query('UPDATE every_take SET clip_sha256 = $2 WHERE id = $1', [takeId, sha256]);
}

/** A run as it can be corrected. */
export interface CorrectableRun {
  readonly specimen_id: string;
  readonly day: string;
  readonly category: string;
  readonly protocol: string;
  readonly protocol_version: number;
}

export async function correctableRun(db: Queryable, id: string): Promise<CorrectableRun | null> {
  const rows = await db.query<CorrectableRun>(
    `SELECT r.specimen_id, se.held_on AS day, u.category, p.slug AS protocol, v.version AS protocol_version
     FROM every_run r
     JOIN session se ON se.id = r.session_id
     JOIN protocol_version v ON v.id = r.protocol_version_id
     JOIN protocol p ON p.id = v.protocol_id
     JOIN unit u ON u.id = r.specimen_id
     WHERE r.id = $1`,
    [id],
  );
  return rows.at(0) ?? null;
}

/** Moves a run, and the points that were given with it, to another unit. */
export async function moveRun(db: Queryable, runId: string, specimenId: string): Promise<void> {
  await db.query('UPDATE every_run SET specimen_id = $2 WHERE id = $1', [runId, specimenId]);
  await db.query('UPDATE points SET specimen_id = $2 WHERE run_id = $1', [runId, specimenId]);
  await db.query('UPDATE session_slot SET unit = unit || $2::jsonb WHERE run_id = $1', [
    runId,
    JSON.stringify(await namesOf(db, specimenId)),
  ]);
}

export async function namesOf(
  db: Queryable,
  specimenId: string,
): Promise<{ maker: string; model: string; label: string } | null> {
  const rows = await db.query<{ maker: string; model: string; label: string }>(
    'SELECT maker, model, label FROM unit WHERE id = $1',
    [specimenId],
  );
  return rows.at(0) ?? null;
}

/** Gives a unit another name; its turns in sessions go by the new one. */
export async function renameUnit(
  db: Queryable,
  specimenId: string,
  modelId: string,
  names: { readonly maker: string; readonly model: string; readonly label: string },
): Promise<void> {
  const before = await namesOf(db, specimenId);
  await exchangeNames(db, specimenId, modelId, names.label);
  await db.query(`UPDATE session_slot SET unit = unit || $1::jsonb WHERE unit @> $2::jsonb`, [
    JSON.stringify(names),
    JSON.stringify(before),
  ]);
  // Plans that have not started are planned by name.
  const plans = await db.query<{ id: string; document: { units: Record<string, unknown>[] } }>(
    "SELECT id, document FROM session_plan WHERE document->'units' @> $1::jsonb",
    [JSON.stringify([before])],
  );
  for (const { id, document } of plans) {
    const units = document.units.map((u) =>
      before && u['maker'] === before.maker && u['model'] === before.model && u['label'] === before.label
        ? { ...u, ...names }
        : u,
    );
    await db.query('UPDATE session_plan SET document = $2 WHERE id = $1', [id, JSON.stringify({ ...document, units })]);
  }
}

/** A unit that is part of this one and has the name gets this one’s: each name means the same unit as before. */
async function exchangeNames(db: Queryable, specimenId: string, modelId: string, label: string): Promise<void> {
  const [old] = await db.query<{ model_id: string; label: string }>(
    'SELECT model_id, label FROM specimen WHERE id = $1',
    [specimenId],
  );
  const parts = await db.query<{ id: string }>(
    `UPDATE every_specimen SET label = label || ' ' || gen_random_uuid()
     WHERE model_id = $2 AND label = $3 AND merged_into = $1 RETURNING id`,
    [specimenId, modelId, label],
  );
  const set = 'UPDATE every_specimen SET model_id = $2, label = $3 WHERE id = $1';
  await db.query(set, [specimenId, modelId, label]);
  for (const part of parts) await db.query(set, [part.id, old.model_id, old.label]);
}

/** A price as it can be corrected. */
export interface CorrectablePrice {
  readonly specimen_id: string;
  readonly amount: number;
  readonly currency: string;
  readonly kind: Extract<Change, { kind: 'price' }>['priceKind'];
  readonly date: string;
  readonly region: string;
  readonly tax: Extract<Change, { kind: 'price' }>['tax'];
  readonly shop: string;
  readonly note: string;
}

export async function correctablePrice(db: Queryable, id: string): Promise<CorrectablePrice | null> {
  const rows = await db.query<CorrectablePrice>(
    'SELECT specimen_id, amount, currency, kind, effective_on AS date, region, tax, shop, note FROM every_price WHERE id = $1',
    [id],
  );
  return rows.at(0) ?? null;
}

export async function correctPrice(db: Queryable, change: Extract<Change, { kind: 'price' }>): Promise<void> {
  await db.query(
    `UPDATE every_price SET amount = $2, currency = $3, kind = $4, effective_on = $5, region = $6, tax = $7, shop = $8, note = $9
     WHERE id = $1`,
    [
      change.price,
      change.amount,
      change.currency,
      change.priceKind,
      change.date,
      change.region,
      change.tax,
      change.shop,
      change.note,
    ],
  );
}

export async function correctRig(
  db: Queryable,
  id: string,
  name: string,
  day: string,
  document: unknown,
): Promise<void> {
  await db.query('UPDATE rig SET name = $2, effective_on = $3, document = $4 WHERE id = $1', [
    id,
    name,
    day,
    JSON.stringify(document),
  ]);
}

/** Takes that a session has; answers that a test has: what is used is not removed. */
export async function takesOfSession(db: Queryable, planId: string): Promise<number> {
  const [row] = await db.query<{ count: number }>(
    `SELECT count(*)::int AS count FROM slot_take t JOIN session_slot s ON s.id = t.slot_id WHERE s.plan_id = $1`,
    [planId],
  );
  return row.count;
}

export async function answersOfTest(db: Queryable, testId: string): Promise<number> {
  const [row] = await db.query<{ count: number }>('SELECT count(*)::int AS count FROM sitting WHERE test_id = $1', [
    testId,
  ]);
  return row.count;
}

/** What a session or a test is called. */
export async function titleOf(db: Queryable, what: 'session' | 'test', id: string): Promise<string | null> {
  const [row] = await db.query<{ title: string | null }>(
    `SELECT coalesce(document->>'title', document->>'name') AS title FROM ${LEAVABLE[what]} WHERE id = $1`,
    [id],
  );
  return (row as { title: string | null } | undefined)?.title ?? null;
}

/** A photograph as it can be left out; it is there. */
export async function photographOf(
  db: Queryable,
  id: string,
): Promise<{ readonly specimen_id: string; readonly day: string; readonly caption: string }> {
  const [row] = await db.query<{ specimen_id: string; day: string; caption: string }>(
    'SELECT specimen_id, effective_on AS day, caption FROM photograph WHERE id = $1',
    [id],
  );
  return row;
}
