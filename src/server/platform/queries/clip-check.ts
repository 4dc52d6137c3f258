import type { Queryable } from '../db/database';

/** Notes that the bytes of a clip were read, and what was wrong. */
export async function noteClipCheck(db: Queryable, sha256: string, at: Date, problem: string | null): Promise<void> {
  await db.query(
    `INSERT INTO clip_check (clip_sha256, checked_at, problem) VALUES ($1, $2, $3)
     ON CONFLICT (clip_sha256) DO UPDATE SET checked_at = excluded.checked_at, problem = excluded.problem`,
    [sha256, at, problem],
  );
}

/** The clip whose check is oldest, those that were never checked first; null where all were checked since. */
export async function nextClipToCheck(db: Queryable, since: Date): Promise<string | null> {
  const [row] = await db.query<{ sha256: string }>(
    `SELECT c.sha256 FROM clip c LEFT JOIN clip_check k ON k.clip_sha256 = c.sha256
     WHERE k.checked_at IS NULL OR k.checked_at < $1 ORDER BY k.checked_at NULLS FIRST, c.sha256 LIMIT 1`,
    [since],
  );
  return row?.sha256 ?? null;
}

export interface ClipCheckCounts {
  readonly clips: number;
  readonly bytes: number;
  readonly checked: number;
  readonly oldest: Date | null;
}

export async function clipCheckCounts(db: Queryable): Promise<ClipCheckCounts> {
  const [row] = await db.query<ClipCheckCounts & { bytes: string | number }>(
    `SELECT count(*)::int AS clips, coalesce(sum(c.bytes), 0)::float8 AS bytes, count(k.checked_at)::int AS checked,
            min(k.checked_at) AS oldest
     FROM clip c LEFT JOIN clip_check k ON k.clip_sha256 = c.sha256`,
  );
  return row;
}

/** Names and sizes of all clips, for a look at what is on the disk. */
export async function clipSizes(db: Queryable): Promise<{ sha256: string; name: string; bytes: number }[]> {
  return db.query('SELECT sha256, original_name AS name, bytes::float8 AS bytes FROM clip ORDER BY sha256');
}
