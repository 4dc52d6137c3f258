import type { Database, Queryable, SqlValue } from '../platform/db/database';

/** A database that counts the questions it is asked. */
export function countedDatabase(database: Database): Database & { readonly asked: () => number } {
  let questions = 0;
  const counted = (of: Queryable) => ({
    query: <Row>(sql: string, values?: readonly SqlValue[]): Promise<Row[]> => {
      questions++;
      return of.query<Row>(sql, values);
    },
  });
  return {
    ...counted(database),
    transaction: (work) =>
      database.transaction((tx) => work({ ...counted(tx), script: (sql: string) => tx.script(sql) })),
    script: (sql) => database.script(sql),
    close: () => database.close(),
    asked: () => questions,
  };
}
