import { PGlite, types, type PGliteOptions } from '@electric-sql/pglite';
import type { Database, Queryable, SqlValue } from './database';

// Days stay texts ("2026-05-02"): as Date objects they would move with the time zone. Ids (int8) become texts, too.
const parsers = {
  [types.DATE]: (value: string) => value,
  [types.INT8]: (value: string) => value,
  [types.NUMERIC]: (value: string) => Number(value),
};

/**
 * Opens the database in a folder, or in memory with the contents of a dump (tests).
 *
 * @param where - folder on disk, or a dump of another PGlite
 */
export async function openPglite(
  where: { folder: string } | { dump: Blob | File | null },
): Promise<Database & { pglite: PGlite }> {
  const options: PGliteOptions = { parsers };
  if ('folder' in where) options.dataDir = where.folder;
  else if (where.dump) options.loadDataDir = where.dump;
  const pglite = await PGlite.create(options);
  const over = (runner: Pick<PGlite, 'query'>): Queryable => ({
    async query<Row>(sql: string, values: readonly SqlValue[] = []): Promise<Row[]> {
      const result = await runner.query<Row>(sql, [...values]);
      return result.rows;
    },
  });
  return {
    pglite,
    ...over(pglite),
    transaction: (work) => pglite.transaction((tx) => work(over(tx as unknown as PGlite))),
    script: async (sql) => {
      await pglite.exec(sql);
    },
    close: () => pglite.close(),
  };
}
