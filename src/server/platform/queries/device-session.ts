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

/** Sessions that count: neither revoked nor older than a day. */
export async function deviceSessions(db: Queryable, after: Date): Promise<DeviceSessionRow[]> {
  return db.query(
    `SELECT id, key_hash, device, address, recorded_at FROM device_session
     WHERE revoked_at IS NULL AND recorded_at > $1 ORDER BY id DESC`,
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
