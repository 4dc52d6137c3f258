import type { Queryable } from '../../platform/db/database';

/** A take as a comparison needs it. */
export interface LaneRow {
  readonly take_id: string;
  readonly run_id: string;
  readonly specimen_id: string;
  readonly unit: string;
  readonly category: string;
  readonly date: string;
  readonly step: string;
  readonly step_title: string;
  readonly protocol: string;
  readonly protocol_version: number;
  readonly protocol_document: unknown;
  readonly rig: string | null;
  readonly sha256: string;
  readonly duration_s: number;
  readonly sample_rate_hz: number;
  readonly gain_db: number | null;
  readonly dial: string | null;
  readonly settings: unknown;
  readonly origin: unknown;
  /** The recording of several channels that it is one of. */
  readonly recording: string | null;
  readonly summary: unknown;
  readonly step_powers: Uint8Array | null;
  /** Figures of its run that take several clips. */
  readonly run_figures: unknown;
}

const LANE_TABLES = `take t
     JOIN run r ON r.id = t.run_id
     JOIN session se ON se.id = r.session_id
     JOIN step st ON st.id = t.step_id
     JOIN protocol_version v ON v.id = st.protocol_version_id
     JOIN protocol p ON p.id = v.protocol_id
     JOIN unit u ON u.id = r.specimen_id
     JOIN clip c ON c.sha256 = t.clip_sha256
     JOIN analysis a ON a.clip_sha256 = t.clip_sha256 AND a.algorithm_version = $2 AND a.status = 'done'`;

/** Measured takes by their numbers, in no particular order. */
export async function laneTakes(
  db: Queryable,
  takeIds: readonly string[],
  algorithmVersion: number,
): Promise<LaneRow[]> {
  return db.query(
    `SELECT t.id AS take_id, r.id AS run_id, r.specimen_id, u.name AS unit, u.category, se.held_on AS date,
            st.slug AS step, st.title AS step_title, p.slug AS protocol, v.version AS protocol_version,
            v.document AS protocol_document, g.name || ', since ' || g.effective_on AS rig, c.sha256, c.duration_s,
            c.sample_rate_hz, t.gain_db, t.settings->>'dial' AS dial, t.settings, c.origin, c.channel_of->>'sha256' AS recording,
            a.summary, a.step_powers,
            (SELECT coalesce(json_agg(json_build_object('quantity', me.quantity, 'value', me.value, 'uncertainty', me.uncertainty)), '[]')
             FROM measurement me WHERE me.run_id = r.id AND me.algorithm_version = $2 AND me.superseded_at IS NULL) AS run_figures
     FROM ${LANE_TABLES} LEFT JOIN rig g ON g.id = r.rig_id
     WHERE t.id IN (SELECT value::bigint FROM jsonb_array_elements_text($1::jsonb))`,
    [JSON.stringify(takeIds), algorithmVersion],
  );
}

export interface CandidateRow {
  readonly take_id: string;
  readonly specimen_id: string;
  readonly unit: string;
  readonly step: string;
  readonly step_title: string;
  readonly category: string;
  readonly date: string;
  readonly duration_s: number;
  readonly protocol: string;
  readonly protocol_version: number;
  readonly settings: unknown;
  readonly origin: unknown;
}

/** Measured takes of a step of a category, newest first. */
export async function stepTakes(
  db: Queryable,
  category: string,
  step: string,
  algorithmVersion: number,
): Promise<CandidateRow[]> {
  return db.query(
    `SELECT t.id AS take_id, r.specimen_id, u.name AS unit, st.slug AS step, st.title AS step_title, u.category,
            se.held_on AS date, c.duration_s, p.slug AS protocol, v.version AS protocol_version, t.settings, c.origin
     FROM ${LANE_TABLES}
     WHERE u.category = $1 AND st.slug = $3
     ORDER BY se.held_on DESC, t.id DESC`,
    [category, algorithmVersion, step],
  );
}

/** Steps that takes exist of, with how many units have one. */
export async function heardSteps(
  db: Queryable,
  algorithmVersion: number,
): Promise<{ category: string; step: string; title: string; units: number }[]> {
  return db.query(
    `SELECT u.category, st.slug AS step, min(st.title) AS title, count(DISTINCT r.specimen_id)::int AS units
     FROM take t
     JOIN run r ON r.id = t.run_id
     JOIN step st ON st.id = t.step_id
     JOIN unit u ON u.id = r.specimen_id
     JOIN analysis a ON a.clip_sha256 = t.clip_sha256 AND a.algorithm_version = $1 AND a.status = 'done'
     GROUP BY u.category, st.slug ORDER BY count(DISTINCT r.specimen_id) DESC, st.slug`,
    [algorithmVersion],
  );
}

export interface CompareSetRow {
  readonly id: string;
  readonly name: string;
  readonly document: unknown;
  readonly day: string;
}
const SET_COLUMNS = 'id, name, document, recorded_at::date AS day';

export async function listCompareSets(db: Queryable): Promise<CompareSetRow[]> {
  return db.query(`SELECT ${SET_COLUMNS} FROM compare_set WHERE removed_at IS NULL ORDER BY id DESC`);
}

export async function findCompareSet(db: Queryable, id: string): Promise<CompareSetRow | null> {
  return (await db.query<CompareSetRow>(`SELECT ${SET_COLUMNS} FROM compare_set WHERE id = $1`, [id])).at(0) ?? null;
}

export async function insertCompareSet(db: Queryable, name: string, document: unknown): Promise<string> {
  const [row] = await db.query<{ id: string }>(
    'INSERT INTO compare_set (name, document) VALUES ($1, $2) RETURNING id',
    [name, JSON.stringify(document)],
  );
  return row.id;
}

/** Takes a set off the list, or puts it back. */
export async function setCompareSetRemoved(db: Queryable, id: string, at: Date | null): Promise<void> {
  await db.query('UPDATE compare_set SET removed_at = $2 WHERE id = $1', [id, at]);
}
