import type { TableReading } from '#contracts/table-reading';
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
