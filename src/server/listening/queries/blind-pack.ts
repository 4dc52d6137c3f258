import type { PackDocument } from '#contracts/blind-pack';
import type { Queryable } from '../../platform/db/database';

export interface BlindPackRow {
  readonly test_id: string;
  readonly key_text: string;
  readonly key_sha256: string;
  readonly opening_code: string;
  readonly document: unknown;
  readonly sealed_on: string;
}

/** Keeps a sealed key; it is never changed afterwards. */
export async function insertBlindPack(
  db: Queryable,
  pack: Omit<BlindPackRow, 'document'> & { readonly document: PackDocument },
): Promise<void> {
  await db.query(
    'INSERT INTO blind_pack (test_id, key_text, key_sha256, opening_code, document, sealed_on) VALUES ($1, $2, $3, $4, $5, $6)',
    [pack.test_id, pack.key_text, pack.key_sha256, pack.opening_code, JSON.stringify(pack.document), pack.sealed_on],
  );
}

export async function findBlindPack(db: Queryable, testId: string): Promise<BlindPackRow | null> {
  const sql =
    'SELECT test_id, key_text, key_sha256, opening_code, document, sealed_on FROM blind_pack WHERE test_id = $1';
  return (await db.query<BlindPackRow>(sql, [testId])).at(0) ?? null;
}

/** What answers of sittings weigh, all of a test at once. */
export async function setReliabilities(
  db: Queryable,
  weights: readonly { readonly id: string; readonly weight: number }[],
): Promise<void> {
  await db.query(
    `UPDATE sitting si SET reliability = w.weight
     FROM jsonb_to_recordset($1::jsonb) AS w (id bigint, weight float8) WHERE si.id = w.id`,
    [JSON.stringify(weights)],
  );
}
