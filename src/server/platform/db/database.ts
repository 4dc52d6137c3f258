/** A parameter of a statement. */
export type SqlValue = string | number | boolean | null | Uint8Array | Date;

/** What services need of a database: no more than any PostgreSQL gives. */
export interface Queryable {
  /** Runs one statement with $1, $2, … and returns its rows; the caller names their type. */
  query<Row>(sql: string, values?: readonly SqlValue[]): Promise<Row[]>;
}

/** What happens in one transaction. */
export interface Transaction extends Queryable {
  /** Runs a script of several statements, without values. */
  script(sql: string): Promise<void>;
}

export interface Database extends Queryable {
  /** Runs the work in one transaction; a rejection rolls it back. */
  transaction<T>(work: (tx: Transaction) => Promise<T>): Promise<T>;
  /** Runs a script of several statements, without values. */
  script(sql: string): Promise<void>;
  close(): Promise<void>;
}
