import type { SheetValue } from '#core/gear/sheet/sheet-field';
import { sheetClaim } from '#core/gear/claim-comparison';
import { sheetValueSchema, type SheetEntry } from '#contracts/sheet';
import type { Claim } from '#contracts/run-document';
import { amongUpTo } from '../../platform/db/among';
import type { Queryable } from '../../platform/db/database';

/** What is put into a field of a sheet. */
export interface PutEntry {
  readonly field: string;
  /** Null takes back what stands there. */
  readonly value: SheetValue | null;
}

/** Puts a value into a field from a day on, unless the same stands there. */
export async function putSheetEntry(
  db: Queryable,
  specimenId: string,
  { field, value }: PutEntry,
  day: string,
  reason: string,
): Promise<void> {
  await db.query(
    `INSERT INTO sheet_entry (specimen_id, field, value, effective_on, reason)
     SELECT $1::bigint, $2::text, $3::jsonb, $4::date, $5::text
     WHERE $3::jsonb IS DISTINCT FROM (
       SELECT value FROM sheet_entry WHERE specimen_id = $1 AND field = $2
       ORDER BY effective_on DESC, id DESC LIMIT 1)`,
    [specimenId, field, value === null ? null : JSON.stringify(value), day, reason],
  );
}

/**
 * What a run says of a field on its day. What stood there on that day already is not said again, nor is what the same run
 * said before it was taken back.
 */
export async function noteSheetEntry(
  db: Queryable,
  specimenId: string,
  { field, value }: PutEntry,
  day: string,
): Promise<void> {
  await db.query(
    `INSERT INTO sheet_entry (specimen_id, field, value, effective_on)
     SELECT $1::bigint, $2::text, $3::jsonb, $4::date
     WHERE NOT EXISTS (
         SELECT 1 FROM sheet_entry
         WHERE specimen_id = $1 AND field = $2 AND value = $3::jsonb AND effective_on = $4::date)
       AND $3::jsonb IS DISTINCT FROM (
         SELECT value FROM sheet_entry WHERE specimen_id = $1 AND field = $2 AND effective_on <= $4::date
         ORDER BY effective_on DESC, id DESC LIMIT 1)`,
    [specimenId, field, JSON.stringify(value), day],
  );
}

/** All entries of a unit's sheet, newest first. */
export async function sheetHistory(db: Queryable, specimenId: string): Promise<SheetEntry[]> {
  const rows = await db.query<{ field: string; value: unknown; date: string; reason: string }>(
    `SELECT field, value, effective_on AS date, reason FROM sheet_entry
     WHERE specimen_id = $1 ORDER BY effective_on DESC, id DESC`,
    [specimenId],
  );
  return rows.map((row) => ({ ...row, value: row.value === null ? null : sheetValueSchema.parse(row.value) }));
}

/** What stands in the sheets of some units, or of all. */
export async function currentSheets(
  db: Queryable,
  ids: readonly string[] | null = null,
  until: string | null = null,
): Promise<{ specimen_id: string; field: string; value: SheetValue }[]> {
  const { sql, values } = amongUpTo(ids, until, { id: 'specimen_id', day: 'effective_on' }, 1);
  const rows = await db.query<{ specimen_id: string; field: string; value: unknown }>(
    `SELECT specimen_id, field, value FROM (
       SELECT DISTINCT ON (specimen_id, field) specimen_id, field, value FROM sheet_entry
       WHERE true ${sql} ORDER BY specimen_id, field, effective_on DESC, id DESC) newest
     WHERE value IS NOT NULL`,
    values,
  );
  return rows.map((row) => ({ ...row, value: sheetValueSchema.parse(row.value) }));
}

/** Entries that stand beside measured figures, as claims. */
export function claimsOf(entries: Iterable<readonly [field: string, value: SheetValue]>): Claim[] {
  return [...entries].flatMap(([field, value]) => sheetClaim(field, value) ?? []);
}

/** The claims of a unit that count: of each figure the newest. */
export async function claimsOfSpecimen(db: Queryable, specimenId: string): Promise<Claim[]> {
  return claimsOf((await currentSheets(db, [specimenId])).map((e) => [e.field, e.value]));
}
