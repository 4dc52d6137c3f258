import type { RunDocument, RunTake } from '#contracts/run-document';
import { among } from '../../platform/db/among';
import type { Queryable } from '../../platform/db/database';
import { CLIP_COLUMNS, type ClipRow } from './clip';
import { CURRENT_CHOICE } from './segment-choice';

/** Finds or creates the session of a day. */
export async function ensureSession(db: Queryable, day: string): Promise<string> {
  await db.query('INSERT INTO session (held_on) VALUES ($1) ON CONFLICT DO NOTHING', [day]);
  return (await db.query<{ id: string }>('SELECT id FROM session WHERE held_on = $1', [day]))[0].id;
}

export async function findRunByKey(
  db: Queryable,
  importKey: string,
): Promise<{ id: string; specimen_id: string; left_out: boolean } | null> {
  const [row] = await db.query<{ id: string; specimen_id: string; left_out: boolean }>(
    'SELECT id, specimen_id, left_out FROM every_run WHERE import_key = $1',
    [importKey],
  );
  return row ?? null;
}

interface NewRunRow {
  readonly sessionId: string;
  readonly specimenId: string;
  readonly protocolVersionId: string;
  readonly source: string;
  readonly importKey: string;
  readonly fullScaleDbu: number | null;
  readonly rigId: string | null;
  readonly purpose: RunDocument['purpose'];
}

export async function insertRun(db: Queryable, run: NewRunRow): Promise<string> {
  const [row] = await db.query<{ id: string }>(
    `INSERT INTO run (session_id, specimen_id, protocol_version_id, source, import_key, full_scale_dbu, rig_id, purpose)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8) RETURNING id`,
    [
      run.sessionId,
      run.specimenId,
      run.protocolVersionId,
      run.source,
      run.importKey,
      run.fullScaleDbu,
      run.rigId,
      run.purpose,
    ],
  );
  return row.id;
}

export async function insertTake(
  db: Queryable,
  runId: string,
  stepId: string,
  sha256: string,
  take: RunTake,
  ordinal: number,
): Promise<void> {
  await db.query(
    `INSERT INTO take (run_id, step_id, clip_sha256, gain_db, distance_m, angle_deg, ordinal, level_db_spl, level_dbu,
                       wind_speed_ms, note, settings, overruled)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
    [
      runId,
      stepId,
      sha256,
      take.gainDb,
      take.distanceM ?? null,
      take.angleDeg ?? null,
      ordinal,
      take.levelDbSpl ?? null,
      take.levelDbu ?? null,
      take.windSpeedMs ?? null,
      take.note ?? '',
      JSON.stringify(take.settings ?? {}),
      JSON.stringify(take.overruled ?? []),
    ],
  );
}

/** A run of a specimen's sheet. */
export interface RunRow {
  readonly id: string;
  readonly date: string;
  readonly protocol: string;
  readonly protocol_version: number;
  readonly source: string;
  readonly purpose: RunDocument['purpose'];
  readonly rig: string | null;
  readonly rig_name: string | null;
}

export async function runsOfSpecimen(db: Queryable, specimenId: string): Promise<RunRow[]> {
  return db.query(
    `SELECT r.id, se.held_on AS date, p.slug AS protocol, v.version AS protocol_version, r.source, r.purpose,
            g.name || ', since ' || g.effective_on AS rig, g.name AS rig_name
     FROM run r
     JOIN session se ON se.id = r.session_id
     JOIN protocol_version v ON v.id = r.protocol_version_id
     JOIN protocol p ON p.id = v.protocol_id
     LEFT JOIN rig g ON g.id = r.rig_id
     WHERE r.specimen_id = $1
     ORDER BY se.held_on DESC, (r.purpose = 'closing'), r.id DESC`,
    [specimenId],
  );
}

/** A take with its clip and the state of its analysis. */
export type TakeRow = ClipRow & {
  readonly take_id: string;
  readonly run_id: string;
  readonly step: string;
  readonly step_title: string;
  readonly gain_db: number | null;
  readonly distance_m: number | null;
  readonly angle_deg: number | null;
  readonly level_db_spl: number | null;
  readonly level_dbu: number | null;
  readonly wind_speed_ms: number | null;
  readonly note: string;
  readonly settings: unknown;
  readonly overruled: unknown;
  readonly analysis_id: string;
  readonly status: 'queued' | 'running' | 'done' | 'failed';
  readonly reason: string | null;
  readonly attempts: number;
  readonly summary: unknown;
  readonly measurements: unknown;
};

/** Columns of a take with its clip and analysis; what a person has marked stands before what was found automatically. */
const TAKE_COLUMNS = `t.id AS take_id, t.run_id, st.slug AS step, st.title AS step_title, t.gain_db, t.distance_m,
            t.angle_deg, t.level_db_spl, t.level_dbu, t.wind_speed_ms, t.note, t.settings, t.overruled, ${CLIP_COLUMNS}, a.id AS analysis_id, a.status, a.reason, a.attempts,
            COALESCE(ch.summary, a.summary) AS summary, COALESCE(ch.measurements, a.measurements) AS measurements`;
const TAKE_TABLES = `take t
     JOIN run r ON r.id = t.run_id
     JOIN step st ON st.id = t.step_id
     JOIN clip c ON c.sha256 = t.clip_sha256
     JOIN analysis a ON a.clip_sha256 = t.clip_sha256 AND a.algorithm_version = $2
     ${CURRENT_CHOICE}`;

export async function takesOfSpecimen(db: Queryable, specimenId: string, algorithmVersion: number): Promise<TakeRow[]> {
  return db.query(
    `SELECT ${TAKE_COLUMNS} FROM ${TAKE_TABLES} WHERE r.specimen_id = $1 ORDER BY t.run_id, t.ordinal, t.id`,
    [specimenId, algorithmVersion],
  );
}

/** A take with what its page says of unit and run. */
export type TakePageRow = TakeRow & {
  readonly specimen_id: string;
  readonly category: string;
  readonly unit_name: string;
  readonly date: string;
  readonly protocol: string;
  readonly protocol_version: number;
  readonly protocol_document: unknown;
  readonly automatic_summary: unknown;
  readonly choice: unknown;
};

export async function takeForPage(
  db: Queryable,
  takeId: string,
  algorithmVersion: number,
): Promise<TakePageRow | null> {
  const [row] = await db.query<TakePageRow>(
    `SELECT ${TAKE_COLUMNS}, r.specimen_id, u.category, u.name AS unit_name,
            se.held_on AS date, p.slug AS protocol, v.version AS protocol_version, v.document AS protocol_document,
            a.summary AS automatic_summary, ch.segments AS choice
     FROM ${TAKE_TABLES}
     JOIN session se ON se.id = r.session_id
     JOIN unit u ON u.id = r.specimen_id
     JOIN protocol_version v ON v.id = r.protocol_version_id
     JOIN protocol p ON p.id = v.protocol_id
     WHERE t.id = $1`,
    [takeId, algorithmVersion],
  );
  return row ?? null;
}

/** Takes of the same moment: other channels of the recording that a take is a channel of. */
export async function siblingTakes(
  db: Queryable,
  takeId: string,
): Promise<{ takeId: string; unit: string; title: string; channel: number }[]> {
  return db.query(
    `SELECT t.id AS "takeId", u.name AS unit, st.title, (c.channel_of->>'channel')::int AS channel
     FROM every_take own
     JOIN clip oc ON oc.sha256 = own.clip_sha256
     JOIN clip c ON c.channel_of->>'sha256' = oc.channel_of->>'sha256' AND c.sha256 <> oc.sha256
     JOIN take t ON t.clip_sha256 = c.sha256
     JOIN step st ON st.id = t.step_id
     JOIN run r ON r.id = t.run_id
     JOIN unit u ON u.id = r.specimen_id
     WHERE own.id = $1 ORDER BY channel, t.id`,
    [takeId],
  );
}

/** Spectra of one step over the catalogue. */
export interface StepSpectrumRow {
  readonly specimen_id: string;
  readonly date: string;
  readonly unit_name: string;
  readonly runs: number;
  readonly protocol: string;
  readonly protocol_version: number;
  readonly gain_db: number | null;
  readonly loudness: number | null;
  readonly bands: unknown;
}

const TAKES_WITH_STEP_AND_UNIT = `FROM take t
     JOIN step st ON st.id = t.step_id
     JOIN protocol_version v ON v.id = st.protocol_version_id
     JOIN protocol p ON p.id = v.protocol_id
     JOIN run r ON r.id = t.run_id
     JOIN session se ON se.id = r.session_id
     JOIN unit u ON u.id = r.specimen_id`;

/** The newest takes of a step, whole-clip spectra, with how often their unit was tested. */
export async function stepSpectra(
  db: Queryable,
  step: string,
  category: string,
  algorithmVersion: number,
  most: number,
): Promise<StepSpectrumRow[]> {
  return db.query(
    `SELECT r.specimen_id, se.held_on AS date, u.name AS unit_name,
            (SELECT count(*)::int FROM run x WHERE x.specimen_id = r.specimen_id) AS runs, p.slug AS protocol,
            v.version AS protocol_version, t.gain_db, (a.summary->'loudness'->>'integratedLufs')::double precision AS loudness, a.summary->'thirdOctave' AS bands
     ${TAKES_WITH_STEP_AND_UNIT}
     JOIN analysis a ON a.clip_sha256 = t.clip_sha256 AND a.algorithm_version = $3 AND a.status = 'done'
     WHERE st.slug = $1 AND u.category = $2 AND coalesce(trim(t.settings->>'processing'), '') = ''
     ORDER BY se.held_on DESC, t.id DESC LIMIT $4`,
    [step, category, algorithmVersion, most],
  );
}

/** Sessions with what was tested in each, newest first: the layers of the core log. */
export async function listSessions(
  db: Queryable,
): Promise<{ id: string; date: string; takes: number; category: string; units: { id: string; name: string }[] }[]> {
  return db.query(
    `SELECT se.id, se.held_on AS date, sum(n.takes)::int AS takes, min(u.category) AS category,
            json_agg(json_build_object('id', u.id::text, 'name', u.name) ORDER BY n.run_id) AS units
     FROM (SELECT r.id AS run_id, r.session_id, r.specimen_id, count(t.id) AS takes
           FROM run r LEFT JOIN take t ON t.run_id = r.id GROUP BY r.id, r.session_id, r.specimen_id) n
     JOIN session se ON se.id = n.session_id
     JOIN unit u ON u.id = n.specimen_id
     GROUP BY se.id, se.held_on ORDER BY se.held_on DESC`,
  );
}

/** A run of a day, for the page of that day. */
export interface DayRunRow {
  readonly id: string;
  readonly purpose: RunDocument['purpose'];
  readonly specimen_id: string;
  readonly name: string;
  readonly protocol: string;
  readonly protocol_version: number;
  readonly rig_id: string | null;
  readonly takes: number;
  readonly overruled: number;
}

export async function runsOfDay(db: Queryable, day: string): Promise<DayRunRow[]> {
  return db.query(
    `SELECT r.id, r.purpose, r.specimen_id, u.name AS name, p.slug AS protocol,
            v.version AS protocol_version, r.rig_id,
            (SELECT count(*)::int FROM take t WHERE t.run_id = r.id) AS takes,
            (SELECT coalesce(sum(jsonb_array_length(t.overruled)), 0)::int FROM take t WHERE t.run_id = r.id) AS overruled
     FROM run r
     JOIN session se ON se.id = r.session_id
     JOIN unit u ON u.id = r.specimen_id
     JOIN protocol_version v ON v.id = r.protocol_version_id
     JOIN protocol p ON p.id = v.protocol_id
     WHERE se.held_on = $1 ORDER BY r.id`,
    [day],
  );
}

/** A take that another one can be held against. */
export interface ComparableTakeRow {
  readonly step: string;
  readonly specimen_id: string | null;
  readonly unit: string;
  readonly day: string;
  readonly protocol_version: number;
  readonly gain_db: number | null;
  readonly distance_m: number | null;
  readonly settings: unknown;
  readonly overruled: number;
  readonly sample_rate_hz: number;
  readonly duration_s: number;
  readonly summary: unknown;
  readonly step_powers: Uint8Array | null;
}

/** Measured takes of a protocol: of one step with any unit, and of all steps with one unit; newest first. */
export async function comparableTakes(
  db: Queryable,
  where: {
    readonly protocol: string;
    readonly step: string;
    readonly specimenId: string | null;
    readonly algorithmVersion: number;
    readonly most: number;
  },
): Promise<ComparableTakeRow[]> {
  return db.query(
    `SELECT st.slug AS step, r.specimen_id, u.name AS unit, se.held_on AS day,
            v.version AS protocol_version, t.gain_db, t.distance_m, t.settings,
            jsonb_array_length(t.overruled) AS overruled, c.sample_rate_hz, c.duration_s,
            a.summary, a.step_powers
     ${TAKES_WITH_STEP_AND_UNIT}
     JOIN clip c ON c.sha256 = t.clip_sha256
     JOIN analysis a ON a.clip_sha256 = t.clip_sha256 AND a.algorithm_version = $4 AND a.status = 'done'
     WHERE p.slug = $1 AND (st.slug = $2 OR r.specimen_id = $3)
     ORDER BY (r.specimen_id = $3) DESC NULLS LAST, se.held_on DESC, t.id DESC LIMIT $5`,
    [where.protocol, where.step, where.specimenId, where.algorithmVersion, where.most],
  );
}

/** Settings of the last takes of some units, by step. */
export async function lastSettings(
  db: Queryable,
  specimenIds: readonly string[],
): Promise<
  {
    specimen_id: string;
    step: string;
    day: string;
    gain_db: number | null;
    distance_m: number | null;
    angle_deg: number | null;
    settings: unknown;
  }[]
> {
  const { sql, values } = among(specimenIds, 'r.specimen_id', 1);
  return db.query(
    `SELECT DISTINCT ON (r.specimen_id, st.slug) r.specimen_id, st.slug AS step, se.held_on AS day, t.gain_db, t.distance_m,
            t.angle_deg, t.settings
     FROM take t JOIN step st ON st.id = t.step_id JOIN run r ON r.id = t.run_id JOIN session se ON se.id = r.session_id
     WHERE true ${sql} ORDER BY r.specimen_id, st.slug, se.held_on DESC, t.id DESC`,
    values,
  );
}

/** Median length of the takes of each step of a protocol, in seconds. */
export async function usualLengths(db: Queryable, protocol: string): Promise<{ step: string; seconds: number }[]> {
  return db.query(
    `SELECT st.slug AS step, percentile_cont(0.5) WITHIN GROUP (ORDER BY c.duration_s) AS seconds
     FROM take t
     JOIN step st ON st.id = t.step_id
     JOIN protocol_version v ON v.id = st.protocol_version_id
     JOIN protocol p ON p.id = v.protocol_id
     JOIN clip c ON c.sha256 = t.clip_sha256
     WHERE p.slug = $1 GROUP BY st.slug`,
    [protocol],
  );
}
