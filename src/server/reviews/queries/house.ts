import { houseSchema, type House } from '#contracts/review';
import type { Queryable } from '../../platform/db/database';

/** What was saved last; null before anything was. */
export async function savedHouse(db: Queryable): Promise<House | null> {
  const [row] = await db.query<{ document: unknown }>(
    'SELECT document FROM house_version ORDER BY version DESC LIMIT 1',
  );
  return (row as { document: unknown } | undefined) ? houseSchema.parse(row.document) : null;
}

export async function addHouse(db: Queryable, house: House): Promise<void> {
  await db.query('INSERT INTO house_version (version, document) VALUES ($1, $2)', [
    house.version,
    JSON.stringify(house),
  ]);
}
