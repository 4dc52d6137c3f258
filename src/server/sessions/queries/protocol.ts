import { protocolSchema, type Protocol } from '#contracts/protocol';
import type { Queryable } from '../../platform/db/database';

/** Adds a version of a protocol with its steps, unless it is there. A version that was used is never changed. */
export async function addProtocolVersion(db: Queryable, protocol: Protocol): Promise<void> {
  await db.query('INSERT INTO protocol (slug, category) VALUES ($1, $2) ON CONFLICT DO NOTHING', [
    protocol.id,
    protocol.category,
  ]);
  const [version] = await db.query<{ id: string }>(
    `INSERT INTO protocol_version (protocol_id, version, document)
     SELECT id, $2, $3 FROM protocol WHERE slug = $1 ON CONFLICT DO NOTHING RETURNING id`,
    [protocol.id, protocol.version, JSON.stringify(protocol)],
  );
  if (!version) return;
  for (const [i, step] of protocol.steps.entries()) {
    await db.query('INSERT INTO step (protocol_version_id, slug, ordinal, title) VALUES ($1, $2, $3, $4)', [
      version.id,
      step.id,
      i + 1,
      step.title,
    ]);
  }
}

/** All versions of all protocols, or of one. */
export async function listProtocols(db: Queryable, slug: string | null = null): Promise<Protocol[]> {
  const rows = await db.query<{ document: unknown }>(
    `SELECT v.document FROM protocol_version v JOIN protocol p ON p.id = v.protocol_id
     WHERE $1::text IS NULL OR p.slug = $1 ORDER BY p.slug, v.version`,
    [slug],
  );
  return rows.map((row) => protocolSchema.parse(row.document));
}

/** One version of a protocol. */
export async function findProtocol(db: Queryable, slug: string, version: number): Promise<Protocol | null> {
  const [row] = await db.query<{ document: unknown }>(
    'SELECT v.document FROM protocol_version v JOIN protocol p ON p.id = v.protocol_id WHERE p.slug = $1 AND v.version = $2',
    [slug, version],
  );
  return row ? protocolSchema.parse(row.document) : null;
}

/** Database ids of a protocol version and of its steps by name. */
export async function protocolIds(
  db: Queryable,
  slug: string,
  version: number,
): Promise<{ versionId: string; steps: ReadonlyMap<string, string> }> {
  const rows = await db.query<{ version_id: string; step_id: string; slug: string }>(
    `SELECT v.id AS version_id, st.id AS step_id, st.slug
     FROM protocol p JOIN protocol_version v ON v.protocol_id = p.id JOIN step st ON st.protocol_version_id = v.id
     WHERE p.slug = $1 AND v.version = $2`,
    [slug, version],
  );
  return { versionId: rows[0].version_id, steps: new Map(rows.map((r) => [r.slug, r.step_id])) };
}

/** How often, and when, each version was used. */
export interface VersionUse {
  readonly slug: string;
  readonly version: number;
  readonly runs: number;
  readonly plans: number;
  readonly first_used: string | null;
  readonly last_used: string | null;
}

export async function versionUses(db: Queryable): Promise<VersionUse[]> {
  return db.query(
    `SELECT p.slug, v.version, count(r.id)::int AS runs, min(se.held_on) AS first_used, max(se.held_on) AS last_used,
            (SELECT count(*)::int FROM session_plan sp
             WHERE sp.document->>'protocol' = p.slug AND (sp.document->>'protocolVersion')::int = v.version
               AND sp.status IN ('running', 'done')) AS plans
     FROM protocol_version v
     JOIN protocol p ON p.id = v.protocol_id
     LEFT JOIN run r ON r.protocol_version_id = v.id
     LEFT JOIN session se ON se.id = r.session_id
     GROUP BY p.slug, v.id, v.version`,
  );
}

/** Takes an unused version away, to be written anew. */
export async function dropProtocolVersion(db: Queryable, slug: string, version: number): Promise<void> {
  const [row] = await db.query<{ id: string }>(
    'SELECT v.id FROM protocol_version v JOIN protocol p ON p.id = v.protocol_id WHERE p.slug = $1 AND v.version = $2',
    [slug, version],
  );
  if (!row) return;
  await db.query('DELETE FROM step WHERE protocol_version_id = $1', [row.id]);
  await db.query('DELETE FROM protocol_version WHERE id = $1', [row.id]);
}
