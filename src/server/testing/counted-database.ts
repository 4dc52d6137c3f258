import { AsyncLocalStorage } from 'node:async_hooks';
import type { Database, Queryable, SqlValue } from '../platform/db/database';

/** A database that counts the questions that some work asks it. */
export interface CountedDatabase extends Database {
  /** Of this work alone: what the archive does by itself meanwhile (a clip is looked at, once a while) asks, too. */
  readonly questionsOf: (work: () => Promise<unknown>) => Promise<number>;
}

export function countedDatabase(database: Database): CountedDatabase {
  const counting = new AsyncLocalStorage<{ asked: number }>();
  const counted = (of: Queryable) => ({
    query: <Row>(sql: string, values?: readonly SqlValue[]): Promise<Row[]> => {
      const own = counting.getStore();
      if (own) own.asked++;
      return of.query<Row>(sql, values);
    },
  });
  return {
    ...counted(database),
    transaction: (work) =>
      database.transaction((tx) => work({ ...counted(tx), script: (sql: string) => tx.script(sql) })),
    script: (sql) => database.script(sql),
    close: () => database.close(),
    questionsOf: async (work) => {
      const own = { asked: 0 };
      await counting.run(own, work);
      return own.asked;
    },
  };
}
