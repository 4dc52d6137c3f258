import type { NewPhotograph, Photograph } from '#contracts/photograph';
import type { Queryable } from '../../platform/db/database';

const COLUMNS = `id, sha256, format, bytes::float8 AS bytes, width_px AS "widthPx", height_px AS "heightPx", subject, caption,
            effective_on AS date`;

/** Photographs of a unit that count, newest first. */
export async function photographsOf(db: Queryable, specimenId: string): Promise<Photograph[]> {
  return db.query(
    `SELECT ${COLUMNS} FROM photograph WHERE specimen_id = $1 AND NOT left_out ORDER BY effective_on DESC, id DESC`,
    [specimenId],
  );
}

export async function addPhotograph(
  db: Queryable,
  specimenId: string,
  photo: Omit<Photograph, 'id'> & NewPhotograph,
): Promise<Photograph> {
  const { sha256, format, bytes, widthPx, heightPx, subject, caption, date } = photo;
  const [row] = await db.query<Photograph>(
    `INSERT INTO photograph (specimen_id, sha256, format, bytes, width_px, height_px, subject, caption, effective_on)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9) RETURNING ${COLUMNS}`,
    [specimenId, sha256, format, bytes, widthPx, heightPx, subject, caption, date],
  );
  return row;
}

/** The format that a photograph is kept in; null where there is none of this hash. */
export async function formatOf(db: Queryable, sha256: string): Promise<Photograph['format'] | null> {
  const rows = await db.query<{ format: Photograph['format'] }>(
    'SELECT format FROM photograph WHERE sha256 = $1 LIMIT 1',
    [sha256],
  );
  return rows.at(0)?.format ?? null;
}
