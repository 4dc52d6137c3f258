import type { Queryable } from '../db/database';

export async function insertDeviceSession(
  db: Queryable,
  session: { readonly keyHash: string; readonly device: string; readonly address: string },
): Promise<void> {
  await db.query('INSERT INTO device_session (key_hash, device, address) VALUES ($1, $2, $3)', [
    session.keyHash,
    session.device,
    session.address,
  ]);
}

export interface DeviceSessionRow {
  readonly id: string;
  readonly key_hash: string;
  readonly device: string;
  readonly address: string;
  readonly recorded_at: Date;
}

const DEVICE_COLUMNS = 'id, key_hash, device, address, recorded_at';
/** Neither revoked nor older than a day, the first value. */
const IS_LET_IN = '(revoked_at IS NULL AND recorded_at > $1)';

/** Sessions that count: neither revoked nor older than a day. */
export async function deviceSessions(db: Queryable, after: Date): Promise<DeviceSessionRow[]> {
  return db.query(
    `SELECT ${DEVICE_COLUMNS} FROM device_session
     WHERE ${IS_LET_IN} ORDER BY id DESC`,
    [after],
  );
}

export async function revokeDeviceSession(db: Queryable, id: string, at: Date): Promise<boolean> {
  const rows = await db.query(
    'UPDATE device_session SET revoked_at = $2 WHERE id = $1 AND revoked_at IS NULL RETURNING id',
    [id, at],
  );
  return rows.length > 0;
}

/** Sessions that count, and those that do not any more and from which something was noted. */
export async function listedDevices(
  db: Queryable,
  after: Date,
): Promise<(DeviceSessionRow & { readonly is_let_in: boolean })[]> {
  return db.query(
    `SELECT ${DEVICE_COLUMNS}, ${IS_LET_IN} AS is_let_in FROM device_session
     WHERE ${IS_LET_IN} OR id IN (SELECT device_id FROM noted_elsewhere) ORDER BY id DESC`,
    [after],
  );
}

/** What was noted from other devices: how often, and when the last time. */
export async function notedElsewhere(
  db: Queryable,
): Promise<{ device_id: string; what: string; count: number; last: Date }[]> {
  return db.query(
    `SELECT device_id, what, count(*)::int AS count, max(recorded_at) AS last FROM noted_elsewhere
     GROUP BY device_id, what ORDER BY device_id, max(recorded_at) DESC, what`,
  );
}
