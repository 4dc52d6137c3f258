import type { NewSavedList, SavedList } from '#contracts/saved-list';
import type { Queryable } from '../../platform/db/database';

export async function savedLists(db: Queryable): Promise<SavedList[]> {
  return db.query('SELECT id, name, page, query FROM saved_list WHERE removed_at IS NULL ORDER BY lower(name), id');
}

/** Keeps a list; one of the same page under the same name gives way. */
export async function keepList(db: Queryable, { name, page, query }: NewSavedList, at: Date): Promise<string> {
  await db.query(
    'UPDATE saved_list SET removed_at = $3 WHERE page = $1 AND lower(name) = lower($2) AND removed_at IS NULL',
    [page, name, at],
  );
  const [{ id }] = await db.query<{ id: string }>(
    'INSERT INTO saved_list (name, page, query) VALUES ($1, $2, $3) RETURNING id',
    [name, page, JSON.stringify(query)],
  );
  return id;
}

/** @returns whether it was there */
export async function removeList(db: Queryable, id: string, at: Date): Promise<boolean> {
  const rows = await db.query(
    'UPDATE saved_list SET removed_at = $2 WHERE id = $1 AND removed_at IS NULL RETURNING id',
    [id, at],
  );
  return rows.length > 0;
}
