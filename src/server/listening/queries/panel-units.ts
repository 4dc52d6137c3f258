import type { Queryable } from '../../platform/db/database';

/** Units by their numbers; in no order, and those that are there. */
export async function unitsById(
  db: Queryable,
  ids: readonly string[],
): Promise<{ id: string; name: string; category: string }[]> {
  return db.query(
    'SELECT id, name, category FROM unit WHERE id IN (SELECT value::bigint FROM jsonb_array_elements_text($1::jsonb))',
    [JSON.stringify(ids)],
  );
}
