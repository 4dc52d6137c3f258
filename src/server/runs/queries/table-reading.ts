import { tableCellSchema, type TableCell, type TableReading } from '#contracts/table-reading';
import { amongUpTo } from '../../platform/db/among';
import type { Queryable } from '../../platform/db/database';

/** Where a table was filled in: in a running session, or in a run. */
export type TableOwner = { readonly slot: string } | { readonly run: string };

export async function fillTable(db: Queryable, owner: TableOwner, reading: TableReading): Promise<void> {
  await db.query('INSERT INTO table_reading (slot_id, run_id, step, cells) VALUES ($1, $2, $3, $4)', [
    'slot' in owner ? owner.slot : null,
    'run' in owner ? owner.run : null,
    reading.step,
    JSON.stringify(reading.cells),
  ]);
}

/** The tables of some slots or runs as they stand. */
export async function tablesOf(
  db: Queryable,
  kind: 'slot' | 'run',
  ids: readonly string[],
): Promise<{ owner: string; step: string; cells: unknown }[]> {
  if (ids.length === 0) return [];
  const column = kind === 'slot' ? 'slot_id' : 'run_id';
  return db.query(
    `SELECT DISTINCT ON (${column}, step) ${column} AS owner, step, cells FROM table_reading
     WHERE ${column} IN (${ids.map((_, i) => `$${i + 1}`).join(', ')}) ORDER BY ${column}, step, id DESC`,
    ids,
  );
}

/** Tables of the runs of some units, or of all, newest first. */
export async function tablesOfUnits(
  db: Queryable,
  ids: readonly string[] | null = null,
  until: string | null = null,
): Promise<{ specimen_id: string; protocol: string; step: string; cells: TableCell[] }[]> {
  const { sql, values } = amongUpTo(ids, until, { id: 'r.specimen_id', day: 'se.held_on' }, 1);
  const rows = await db.query<{ specimen_id: string; protocol: string; step: string; cells: unknown }>(
    `SELECT DISTINCT ON (se.held_on, r.id, t.step) r.specimen_id, p.slug AS protocol, t.step, t.cells
     FROM table_reading t
     JOIN run r ON r.id = t.run_id
     JOIN session se ON se.id = r.session_id
     JOIN protocol_version v ON v.id = r.protocol_version_id
     JOIN protocol p ON p.id = v.protocol_id
     WHERE r.purpose = 'unit' ${sql}
     ORDER BY se.held_on DESC, r.id DESC, t.step, t.id DESC`,
    values,
  );
  return rows.map((row) => ({ ...row, cells: tableCellSchema.array().parse(row.cells) }));
}
