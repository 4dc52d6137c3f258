import { originalExtension } from '#core/audio/sound-files';
import type { Shelf } from '../archive/files-by-hash';
import type { Queryable } from '../db/database';

/** A file beside the clips that the archive needs. */
export interface KeptFile {
  readonly shelf: Shelf;
  readonly sha256: string;
  readonly extension: string;
  readonly bytes: number;
  /** As a person knows it. */
  readonly name: string;
}

/** Photographs, left out or not, and originals, each file once; columns as of {@link KeptFile} but for the extension. */
const KEPT = `
  (SELECT DISTINCT ON (p.sha256) 'photos' AS shelf, p.sha256, p.format AS format, p.bytes::float8 AS bytes,
         CASE WHEN p.caption = '' THEN 'photograph of ' || u.name ELSE p.caption END AS name
  FROM photograph p JOIN unit u ON u.id = p.specimen_id ORDER BY p.sha256, p.id)
  UNION ALL
  (SELECT DISTINCT ON (c.origin->>'sha256') 'originals', c.origin->>'sha256', NULL, (c.origin->>'bytes')::float8, c.origin->>'name'
  FROM clip c WHERE c.origin IS NOT NULL ORDER BY c.origin->>'sha256', c.sha256)`;

interface KeptRow extends Omit<KeptFile, 'extension'> {
  readonly format: string | null;
}

const fileFromRow = ({ format, ...row }: KeptRow): KeptFile => ({
  ...row,
  extension: format ?? originalExtension(row.name),
});

export async function keptFiles(db: Queryable): Promise<KeptFile[]> {
  return (await db.query<KeptRow>(`SELECT * FROM (${KEPT}) AS kept ORDER BY shelf, sha256`)).map(fileFromRow);
}

/** The file whose check is oldest, those that were never checked first; null where all were checked since. */
export async function nextFileToCheck(db: Queryable, since: Date): Promise<KeptFile | null> {
  const [row] = await db.query<KeptRow>(
    `SELECT kept.* FROM (${KEPT}) AS kept LEFT JOIN file_check k ON k.shelf = kept.shelf AND k.sha256 = kept.sha256
     WHERE k.checked_at IS NULL OR k.checked_at < $1 ORDER BY k.checked_at NULLS FIRST, kept.shelf, kept.sha256 LIMIT 1`,
    [since],
  );
  return (row as KeptRow | undefined) ? fileFromRow(row) : null;
}

/** Notes that the bytes of a file were read, and what was wrong. */
export async function noteFileCheck(
  db: Queryable,
  { shelf, sha256 }: KeptFile,
  at: Date,
  problem: string | null,
): Promise<void> {
  await db.query(
    `INSERT INTO file_check (shelf, sha256, checked_at, problem) VALUES ($1, $2, $3, $4)
     ON CONFLICT (shelf, sha256) DO UPDATE SET checked_at = excluded.checked_at, problem = excluded.problem`,
    [shelf, sha256, at, problem],
  );
}

/** A file was brought in again: it is the next to be read. */
export async function forgetFileCheck(db: Queryable, shelf: Shelf, sha256: string): Promise<void> {
  await db.query('DELETE FROM file_check WHERE shelf = $1 AND sha256 = $2', [shelf, sha256]);
}

/** How many there are, and how many were read at least once. */
export async function fileCheckCounts(db: Queryable): Promise<{ readonly files: number; readonly checked: number }> {
  const [row] = await db.query<{ files: number; checked: number }>(
    `SELECT count(*)::int AS files, count(k.checked_at)::int AS checked
     FROM (${KEPT}) AS kept LEFT JOIN file_check k ON k.shelf = kept.shelf AND k.sha256 = kept.sha256`,
  );
  return row;
}
