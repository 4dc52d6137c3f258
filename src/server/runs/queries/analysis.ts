import type { Queryable } from '../../platform/db/database';
import { CURRENT_CHOICE } from './segment-choice';
import { bytesOf, floatsFrom } from '../../platform/db/numbers-from-bytes';

/** Attempts after which an analysis that takes the process down with it is given up. */
const MOST_ATTEMPTS = 3;

/** Orders the analysis of a clip, unless it is ordered or done; returns its id where it is new. */
export async function orderAnalysis(db: Queryable, sha256: string, algorithmVersion: number): Promise<string | null> {
  const [row] = await db.query<{ id: string }>(
    `INSERT INTO analysis (clip_sha256, algorithm_version, status) VALUES ($1, $2, 'queued')
     ON CONFLICT DO NOTHING RETURNING id`,
    [sha256, algorithmVersion],
  );
  return row?.id ?? null;
}

/** Where the analysis of a clip stands, and what it gave. */
export interface ClipAnalysisRow {
  readonly id: string;
  readonly status: 'queued' | 'running' | 'done' | 'failed';
  readonly reason: string | null;
  readonly summary: unknown;
  readonly step_powers: Uint8Array | null;
}

export async function analysisOfClip(
  db: Queryable,
  sha256: string,
  algorithmVersion: number,
): Promise<ClipAnalysisRow | null> {
  const rows = await db.query<ClipAnalysisRow>(
    'SELECT id, status, reason, summary, step_powers FROM analysis WHERE clip_sha256 = $1 AND algorithm_version = $2',
    [sha256, algorithmVersion],
  );
  return rows.at(0) ?? null;
}

/** After a restart: what was running is queued again, or given up when it has been tried too often. */
export async function recoverAnalyses(db: Queryable): Promise<string[]> {
  await db.query(
    `UPDATE analysis SET status = 'failed', reason = 'The application ended during this analysis ' || attempts || ' times.'
     WHERE status = 'running' AND attempts >= $1`,
    [MOST_ATTEMPTS],
  );
  await db.query(`UPDATE analysis SET status = 'queued' WHERE status = 'running'`);
  return (await db.query<{ id: string }>(`SELECT id FROM analysis WHERE status = 'queued' ORDER BY id`)).map(
    (r) => r.id,
  );
}

/** Takes an analysis up; null where it is not waiting any more. */
export async function startAnalysis(db: Queryable, id: string): Promise<{ clip_sha256: string } | null> {
  const [row] = await db.query<{ clip_sha256: string }>(
    `UPDATE analysis SET status = 'running', attempts = attempts + 1, reason = NULL
     WHERE id = $1 AND status = 'queued' RETURNING clip_sha256`,
    [id],
  );
  return row ?? null;
}

export async function failAnalysis(db: Queryable, id: string, reason: string): Promise<void> {
  await db.query(`UPDATE analysis SET status = 'failed', reason = $2, finished_at = now() WHERE id = $1`, [id, reason]);
}

/** Puts a failed analysis back into the queue; false where it had not failed. */
export async function requeueAnalysis(db: Queryable, id: string): Promise<boolean> {
  const rows = await db.query(
    `UPDATE analysis SET status = 'queued', attempts = 0 WHERE id = $1 AND status = 'failed' RETURNING id`,
    [id],
  );
  return rows.length > 0;
}

/** Puts an analysis that is done back into the queue: what it gave cannot be read. */
export async function requeueDoneAnalysis(db: Queryable, id: string): Promise<boolean> {
  const rows = await db.query(
    `UPDATE analysis SET status = 'queued', attempts = 0 WHERE id = $1 AND status = 'done' RETURNING id`,
    [id],
  );
  return rows.length > 0;
}

export async function summaryOfAnalysis(db: Queryable, id: string): Promise<{ summary: unknown } | null> {
  const sql = "SELECT summary FROM analysis WHERE id = $1 AND status = 'done'";
  return (await db.query<{ summary: unknown }>(sql, [id])).at(0) ?? null;
}

interface AnalysisResultRow {
  readonly summary: unknown;
  readonly detail: unknown;
  readonly measurements: unknown;
  readonly stepPowers: Float64Array;
  readonly waveform: Float32Array;
}

export async function finishAnalysis(db: Queryable, id: string, result: AnalysisResultRow): Promise<void> {
  await db.query(
    `UPDATE analysis SET status = 'done', reason = NULL, finished_at = now(), summary = $2, detail = $3, measurements = $4,
            step_powers = $5, waveform = $6
     WHERE id = $1`,
    [
      id,
      JSON.stringify(result.summary),
      JSON.stringify(result.detail),
      JSON.stringify(result.measurements),
      bytesOf(result.stepPowers),
      bytesOf(result.waveform),
    ],
  );
}

export async function waveformOf(
  db: Queryable,
  sha256: string,
  algorithmVersion: number,
): Promise<Float32Array | null> {
  const [row] = await db.query<{ waveform: Uint8Array | null }>(
    'SELECT waveform FROM analysis WHERE clip_sha256 = $1 AND algorithm_version = $2',
    [sha256, algorithmVersion],
  );
  return row?.waveform ? floatsFrom(row.waveform) : null;
}

/** Who waits for an analysis: runs and units that hold its clip. */
export async function runsOfAnalysis(
  db: Queryable,
  id: string,
): Promise<{ run_id: string; specimen_id: string; name: string }[]> {
  return db.query(
    `SELECT DISTINCT r.id AS run_id, r.specimen_id, u.maker || ' ' || u.model AS name
     FROM analysis a
     JOIN take t ON t.clip_sha256 = a.clip_sha256
     JOIN run r ON r.id = t.run_id
     JOIN unit u ON u.id = r.specimen_id
     WHERE a.id = $1 ORDER BY r.id`,
    [id],
  );
}

/** A take of a run with what measuring the run needs of its analysis. */
export interface AnalysedTakeRow {
  readonly take_id: string;
  readonly step_title: string;
  readonly step: string;
  readonly sha256: string;
  readonly gain_db: number | null;
  readonly settings: unknown;
  readonly distance_m: number | null;
  readonly angle_deg: number | null;
  readonly level_db_spl: number | null;
  readonly level_dbu: number | null;
  readonly wind_speed_ms: number | null;
  readonly status: string;
  readonly detail: unknown;
  readonly measurements: unknown;
  readonly step_powers: Uint8Array | null;
  /** Of the clip: the compressed file that it was decoded from. */
  readonly origin: unknown;
  /** Holes of the clip. */
  readonly drops: unknown;
}

/** Whether clips of a run are still waited for, or could not be analysed. */
export async function lacksAnalyses(db: Queryable, runId: string, algorithmVersion: number): Promise<boolean> {
  const [{ lacks }] = await db.query<{ lacks: boolean }>(
    `SELECT EXISTS (SELECT 1 FROM take t JOIN analysis a ON a.clip_sha256 = t.clip_sha256
       WHERE t.run_id = $1 AND a.algorithm_version = $2 AND a.status <> 'done') AS lacks`,
    [runId, algorithmVersion],
  );
  return lacks;
}

export async function analysedTakes(
  db: Queryable,
  runId: string,
  algorithmVersion: number,
): Promise<AnalysedTakeRow[]> {
  return db.query(
    `SELECT t.id AS take_id, st.slug AS step, st.title AS step_title, t.clip_sha256 AS sha256, t.gain_db, t.settings, t.distance_m,
            t.angle_deg, t.level_db_spl, t.level_dbu, t.wind_speed_ms, a.status, COALESCE(ch.detail, a.detail) AS detail,
            COALESCE(ch.measurements, a.measurements) AS measurements, a.step_powers, c.origin,
            a.summary->'dropOuts'->'listed' AS drops
     FROM take t
     JOIN clip c ON c.sha256 = t.clip_sha256
     JOIN step st ON st.id = t.step_id
     JOIN analysis a ON a.clip_sha256 = t.clip_sha256 AND a.algorithm_version = $2
     ${CURRENT_CHOICE}
     WHERE t.run_id = $1 ORDER BY t.ordinal, t.id`,
    [runId, algorithmVersion],
  );
}

/** Kind of gear of a run's unit, and the protocol by which it was made; null where the run does not count. */
export async function planOfRun(
  db: Queryable,
  runId: string,
): Promise<{ readonly category: string; readonly protocol_document: unknown } | null> {
  const rows = await db.query<{ category: string; protocol_document: unknown }>(
    `SELECT u.category, v.document AS protocol_document
     FROM run r JOIN unit u ON u.id = r.specimen_id JOIN protocol_version v ON v.id = r.protocol_version_id
     WHERE r.id = $1`,
    [runId],
  );
  return rows.at(0) ?? null;
}

/** What a run's figures need beside its takes. */
export interface ChainRow {
  readonly specimen_id: string;
  readonly full_scale_dbu: number | null;
  /** Of the newest electrical calibration of the rig up to the run's day. */
  readonly full_scale_u: number | null;
  /** Newest sound calibration of the rig, where the unit is the rig's control unit: dBFS of 1 Pa at 0 dB of gain. */
  readonly one_pascal: number | null;
  readonly one_pascal_u: number | null;
}

export async function chainOfRun(db: Queryable, runId: string): Promise<ChainRow | null> {
  const newest = (kind: string, column: string, where = ''): string =>
    `(SELECT c.${column} FROM calibration c WHERE c.rig_id = r.rig_id AND c.kind = '${kind}'
       AND c.effective_on <= se.held_on ${where} ORDER BY c.effective_on DESC, c.id DESC LIMIT 1)`;
  const ofControl = "AND g.document->>'controlUnit' = r.specimen_id::text";
  const [row] = await db.query<ChainRow>(
    `SELECT r.specimen_id, r.full_scale_dbu, ${newest('electrical', 'uncertainty')} AS full_scale_u,
            ${newest('sound-level', 'result', ofControl)} AS one_pascal,
            ${newest('sound-level', 'uncertainty', ofControl)} AS one_pascal_u
     FROM run r JOIN session se ON se.id = r.session_id LEFT JOIN rig g ON g.id = r.rig_id WHERE r.id = $1`,
    [runId],
  );
  return row ?? null;
}

/** Orders an analysis by this version of every clip in a run that has none yet: older results stay. */
export async function orderMissingAnalyses(db: Queryable, algorithmVersion: number): Promise<void> {
  await db.query(
    `INSERT INTO analysis (clip_sha256, algorithm_version, status)
     SELECT DISTINCT t.clip_sha256, $1::integer, 'queued' FROM take t ON CONFLICT DO NOTHING`,
    [algorithmVersion],
  );
}

/** Runs that hold a clip. */
export async function runsOfClip(db: Queryable, sha256: string): Promise<{ run_id: string; specimen_id: string }[]> {
  return db.query(
    `SELECT DISTINCT r.id AS run_id, r.specimen_id FROM take t JOIN run r ON r.id = t.run_id
     WHERE t.clip_sha256 = $1 ORDER BY r.id`,
    [sha256],
  );
}

/** Notes by which versions a run was measured. */
export async function noteMeasured(
  db: Queryable,
  runId: string,
  algorithmVersion: number,
  figuresVersion: number,
): Promise<void> {
  await db.query(
    `INSERT INTO run_measured (run_id, algorithm_version, figures_version) VALUES ($1, $2, $3)
     ON CONFLICT (run_id) DO UPDATE SET algorithm_version = $2, figures_version = $3`,
    [runId, algorithmVersion, figuresVersion],
  );
}

/** Runs whose clips are all analysed but which were not measured by these versions. */
export async function runsToMeasure(
  db: Queryable,
  algorithmVersion: number,
  figuresVersion: number,
): Promise<{ id: string; specimen_id: string }[]> {
  return db.query(
    `SELECT r.id, r.specimen_id FROM run r
     WHERE NOT EXISTS (SELECT 1 FROM run_measured m
                       WHERE m.run_id = r.id AND m.algorithm_version = $1 AND m.figures_version = $2)
       AND NOT EXISTS (SELECT 1 FROM take t LEFT JOIN analysis a ON a.clip_sha256 = t.clip_sha256 AND a.algorithm_version = $1
                       WHERE t.run_id = r.id AND a.status IS DISTINCT FROM 'done')
     ORDER BY r.id`,
    [algorithmVersion, figuresVersion],
  );
}
