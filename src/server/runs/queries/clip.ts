import type { Clip } from '#contracts/clip';
import type { Queryable } from '../../platform/db/database';

interface ClipRow {
  readonly sha256: string;
  readonly bytes: string;
  readonly container: Clip['format']['container'];
  readonly encoding: string;
  readonly sample_rate_hz: number;
  readonly channels: number;
  readonly duration_s: number;
  readonly original_name: string;
  readonly salvage: Clip['salvaged'];
}

/** Columns of a clip, for queries that join it. */
export const CLIP_COLUMNS =
  'c.sha256, c.bytes, c.container, c.encoding, c.sample_rate_hz, c.channels, c.duration_s, c.original_name, c.salvage';

export function clipFromRow(row: ClipRow): Clip {
  return {
    sha256: row.sha256,
    bytes: Number(row.bytes),
    name: row.original_name,
    format: {
      container: row.container,
      encoding: row.encoding,
      sampleRateHz: row.sample_rate_hz,
      channels: row.channels,
      durationS: row.duration_s,
    },
    salvaged: row.salvage,
  };
}

/** Notes a stored clip; one that is known keeps its first name. */
export async function noteClip(db: Queryable, clip: Clip): Promise<Clip> {
  const { format } = clip;
  await db.query(
    `INSERT INTO clip (sha256, bytes, container, encoding, sample_rate_hz, channels, duration_s, original_name, salvage)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9) ON CONFLICT DO NOTHING`,
    [
      clip.sha256,
      clip.bytes,
      format.container,
      format.encoding,
      format.sampleRateHz,
      format.channels,
      format.durationS,
      clip.name,
      clip.salvaged ? JSON.stringify(clip.salvaged) : null,
    ],
  );
  return (await findClip(db, clip.sha256)) ?? clip;
}

export async function findClip(db: Queryable, sha256: string): Promise<Clip | null> {
  const [row] = await db.query<ClipRow>(`SELECT ${CLIP_COLUMNS} FROM clip c WHERE c.sha256 = $1`, [sha256]);
  return row ? clipFromRow(row) : null;
}

export async function knownClips(db: Queryable): Promise<Set<string>> {
  return new Set((await db.query<{ sha256: string }>('SELECT sha256 FROM clip')).map((r) => r.sha256));
}

export type { ClipRow };
