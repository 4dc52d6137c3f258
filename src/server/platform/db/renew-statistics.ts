import type { Database } from './database';

/**
 * Takes dead rows away and tells the planner what the tables hold.
 *
 * @returns how many rows there are in all tables
 */
export async function renewStatistics(database: Pick<Database, 'query' | 'script'>): Promise<number> {
  await database.script('VACUUM (ANALYZE)');
  const [{ rows }] = await database.query<{ rows: number }>(
    `SELECT coalesce(sum(greatest(reltuples, 0)), 0)::float8 AS rows FROM pg_class
     WHERE relkind = 'r' AND relnamespace = 'public'::regnamespace`,
  );
  return rows;
}

/** What the planner knew when the database was closed last. */
export interface KnownStatistics {
  /** In all tables; null where some table was never counted, or has grown by more than a tenth since. */
  readonly rows: number | null;
}

/** Reads what is known, without renewing it: sizes of files tell what has grown meanwhile. */
export async function knownStatistics(database: Pick<Database, 'query'>): Promise<KnownStatistics> {
  const [{ rows, is_outdated }] = await database.query<{ rows: number; is_outdated: boolean | null }>(
    `SELECT coalesce(sum(greatest(reltuples, 0)), 0)::float8 AS rows,
            bool_or(pages > 0 AND (reltuples < 0 OR pages > 1 + 1.1 * relpages)) AS is_outdated
     FROM (SELECT reltuples, relpages, pg_relation_size(oid) / current_setting('block_size')::int AS pages
           FROM pg_class WHERE relkind = 'r' AND relnamespace = 'public'::regnamespace) AS known`,
  );
  return { rows: is_outdated === true ? null : rows };
}
