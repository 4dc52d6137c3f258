import { channelOfSchema, clipOriginSchema, type ChannelOf, type Clip, type ClipOrigin } from '#contracts/clip';
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
  readonly origin: unknown;
  readonly channel_of: unknown;
}

/** Columns of a clip, for queries that join it. */
export const CLIP_COLUMNS =
  'c.sha256, c.bytes, c.container, c.encoding, c.sample_rate_hz, c.channels, c.duration_s, c.original_name, c.salvage, c.origin, c.channel_of';

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
    origin: clipOriginSchema.nullable().parse(row.origin),
    channelOf: channelOfSchema.nullable().parse(row.channel_of),
  };
}

/** Notes a stored clip; one that is known keeps its first name. */
export async function noteClip(db: Queryable, clip: Clip): Promise<Clip> {
  const { format } = clip;
  await db.query(
    `INSERT INTO clip (sha256, bytes, container, encoding, sample_rate_hz, channels, duration_s, original_name, salvage, origin, channel_of)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11) ON CONFLICT DO NOTHING`,
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
      clip.origin ? JSON.stringify(clip.origin) : null,
      clip.channelOf ? JSON.stringify(clip.channelOf) : null,
    ],
  );
  return (await findClip(db, clip.sha256)) ?? clip;
}

export async function findClip(db: Queryable, sha256: string): Promise<Clip | null> {
  const [row] = await db.query<ClipRow>(`SELECT ${CLIP_COLUMNS} FROM clip c WHERE c.sha256 = $1`, [sha256]);
  return row ? clipFromRow(row) : null;
}

/** The clip that was decoded from a file with these bytes. */
export async function clipOfOrigin(db: Queryable, sha256: string): Promise<Clip | null> {
  const sql = `SELECT ${CLIP_COLUMNS} FROM clip c WHERE c.origin ->> 'sha256' = $1 AND c.channel_of IS NULL ORDER BY c.sha256 LIMIT 1`;
  const [row] = await db.query<ClipRow>(sql, [sha256]);
  return row ? clipFromRow(row) : null;
}

/** Notes what a clip was decoded from, and calls it by that name; one that has such a file keeps it. */
export async function noteOrigin(db: Queryable, sha256: string, origin: ClipOrigin): Promise<Clip | null> {
  await db.query('UPDATE clip SET origin = $2, original_name = $3 WHERE sha256 = $1 AND origin IS NULL', [
    sha256,
    JSON.stringify(origin),
    origin.name,
  ]);
  return findClip(db, sha256);
}

/** Notes which channel of a recording a clip is; one that is known as a channel stays that. */
export async function noteChannel(db: Queryable, sha256: string, channelOf: ChannelOf): Promise<void> {
  const sql = 'UPDATE clip SET channel_of = $2 WHERE sha256 = $1 AND channel_of IS NULL';
  await db.query(sql, [sha256, JSON.stringify(channelOf)]);
}

export async function knownClips(db: Queryable): Promise<Set<string>> {
  return new Set((await db.query<{ sha256: string }>('SELECT sha256 FROM clip')).map((r) => r.sha256));
}

export type { ClipRow };
