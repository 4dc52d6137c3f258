import type { ControlFigureRow } from '#domain/rigs/rig-health';
import type { NewCalibration } from '#contracts/rig';
import type { Queryable } from '../../platform/db/database';

/** A dated rig. */
export interface RigRow {
  readonly id: string;
  readonly name: string;
  readonly day: string;
  readonly document: unknown;
  readonly runs: number;
}

const COLUMNS = `g.id, g.name, g.effective_on AS day, g.document,
                 (SELECT count(*)::int FROM run r WHERE r.rig_id = g.id) AS runs`;

export async function addRig(db: Queryable, name: string, day: string, document: unknown): Promise<string> {
  const [row] = await db.query<{ id: string }>(
    'INSERT INTO rig (name, effective_on, document) VALUES ($1, $2, $3) RETURNING id',
    [name, day, JSON.stringify(document)],
  );
  return row.id;
}

export async function listRigs(db: Queryable): Promise<RigRow[]> {
  return db.query(`SELECT ${COLUMNS} FROM rig g ORDER BY g.effective_on DESC, g.id DESC`);
}

export async function findRig(db: Queryable, id: string): Promise<RigRow | null> {
  return (await db.query<RigRow>(`SELECT ${COLUMNS} FROM rig g WHERE g.id = $1`, [id])).at(0) ?? null;
}

/** A rig as it was on a day; without a name, that of the rig that was changed last before it. */
export async function rigOnDay(db: Queryable, name: string | null, day: string): Promise<RigRow | null> {
  const rows = await db.query<RigRow>(
    `SELECT ${COLUMNS} FROM rig g
     WHERE ($1::text IS NULL OR g.name = $1) AND g.effective_on <= $2
     ORDER BY g.effective_on DESC, g.id DESC LIMIT 1`,
    [name, day],
  );
  return rows.at(0) ?? null;
}

export interface CalibrationRow {
  readonly id: string;
  readonly rig_id: string;
  readonly kind: NewCalibration['kind'];
  readonly day: string;
  readonly fed_in: number | null;
  readonly gain_db: number | null;
  readonly reading: number;
  readonly result: number;
  readonly uncertainty: number | null;
  readonly clip: string | null;
  readonly note: string;
}

const CALIBRATION_COLUMNS = `id, rig_id, kind, effective_on AS day, fed_in, gain_db, reading, result, uncertainty,
                             clip_sha256 AS clip, note`;

export async function addCalibration(
  db: Queryable,
  rigId: string,
  c: NewCalibration & { readonly read: number; readonly result: number; readonly uncertainty: number | null },
): Promise<CalibrationRow> {
  const [row] = await db.query<CalibrationRow>(
    `INSERT INTO calibration (rig_id, kind, fed_in, gain_db, reading, result, uncertainty, clip_sha256, note, effective_on)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) RETURNING ${CALIBRATION_COLUMNS}`,
    [rigId, c.kind, c.fedIn, c.gainDb, c.read, c.result, c.uncertainty, c.clip, c.note, c.day],
  );
  return row;
}

/** Newest first. */
export async function listCalibrations(db: Queryable): Promise<CalibrationRow[]> {
  return db.query(`SELECT ${CALIBRATION_COLUMNS} FROM calibration ORDER BY effective_on DESC, id DESC`);
}

/** A day on which runs were made on a rig that has a control unit. */
export interface ControlledDay {
  readonly day: string;
  readonly rig_id: string;
  readonly control_unit: string;
}

/** All such days, each with the rig of its first run as it was then. */
export async function controlledDays(db: Queryable): Promise<ControlledDay[]> {
  return db.query(
    `WITH named AS (
       SELECT DISTINCT ON (se.held_on) se.held_on AS day, g.name
       FROM run r JOIN session se ON se.id = r.session_id JOIN rig g ON g.id = r.rig_id
       ORDER BY se.held_on, r.id
     )
     SELECT n.day, g.id AS rig_id, g.document->>'controlUnit' AS control_unit
     FROM named n
     JOIN LATERAL (SELECT id, document FROM rig WHERE name = n.name AND effective_on <= n.day
                   ORDER BY effective_on DESC, id DESC LIMIT 1) g ON true
     WHERE g.document->>'controlUnit' IS NOT NULL ORDER BY n.day`,
  );
}

/** All exact figures of a unit up to a day, oldest first. */
export async function figuresOfUnit(
  db: Queryable,
  specimenId: string,
  upTo: string,
  algorithmVersion: number,
): Promise<ControlFigureRow[]> {
  return db.query(
    `SELECT se.held_on AS day, r.id AS run_id, r.purpose, g.name AS rig, r.rig_id, me.quantity, me.value, me.uncertainty,
            p.slug AS protocol, v.version AS protocol_version
     FROM measurement me
     JOIN run r ON r.id = me.run_id
     JOIN session se ON se.id = r.session_id
     JOIN protocol_version v ON v.id = r.protocol_version_id
     JOIN protocol p ON p.id = v.protocol_id
     LEFT JOIN rig g ON g.id = r.rig_id
     WHERE r.specimen_id = $1 AND se.held_on <= $2 AND me.algorithm_version = $3
       AND me.superseded_at IS NULL AND me.value IS NOT NULL AND me.bound = 'exact'
     ORDER BY se.held_on, r.id, me.id`,
    [specimenId, upTo, algorithmVersion],
  );
}
