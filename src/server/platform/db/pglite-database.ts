import { PGlite, types, type PGliteOptions } from '@electric-sql/pglite';
import { notingDevice } from '../acting';
import { Failure } from '../failure';
import type { Database, SqlValue, Transaction } from './database';
import { createCluster, clusterState, removeStalePid } from './cluster';
import { DurableNodeFs, type DurableFsHooks } from './durable-node-fs';
import { GroupFlush } from './group-flush';
import { knownStatistics, renewStatistics } from './renew-statistics';
import { TableStatistics } from './table-statistics';

// Days stay texts ("2026-05-02"): as Date objects they would move with the time zone. Ids (int8) become texts, too.
const parsers = {
  [types.DATE]: (value: string) => value,
  [types.INT8]: (value: string) => value,
  [types.NUMERIC]: (value: string) => Number(value),
};

/**
 * As PGlite starts, but with fsync (`-F` turns it off). Commits do not wait for the disk one by one: each is
 * acknowledged after a flush that several may share ({@link GroupFlush}).
 */
const START_PARAMETERS = [
  ...PGlite.defaultStartParams.filter((parameter) => parameter !== '-F'),
  ...['-c', 'fsync=on', '-c', 'wal_sync_method=fsync', '-c', 'synchronous_commit=off'],
];
/** Writes a record to the log and flushes the log up to it, whatever is committed or not. */
const FLUSH_LOG = "SELECT pg_logical_emit_message(false, 'sediment', '', true)";
/** Statements that change nothing; anything else is flushed. One that begins WITH may hold a change further in. */
const READS = /^\s*((SELECT|SHOW|EXPLAIN)\b|WITH\b(?![^]*\b(INSERT|UPDATE|DELETE|MERGE)\b))/i;

/** A database on disk. */
export interface DatabaseFolder extends DurableFsHooks {
  readonly folder: string;
  /** Asked before each write; where there is none, it is refused in words. */
  readonly hasRoom?: () => boolean;
  /** What goes wrong in the care of the tables; nobody waits for it. */
  readonly report?: (error: unknown) => void;
  /** How long nothing must have been written before that care is taken. */
  readonly quietMs?: number;
}

/**
 * Opens the database in a folder, or in memory with the contents of a dump (tests). On disk, a promise that has
 * resolved means that the change outlives a power cut.
 *
 * @param where - folder on disk, made where there is none; or a dump of another PGlite
 */
export async function openPglite(
  where: DatabaseFolder | { dump: Blob | File | null },
): Promise<Database & { pglite: PGlite }> {
  const isOnDisk = 'folder' in where;
  const options: PGliteOptions = { parsers };
  if (isOnDisk) {
    if (clusterState(where.folder) === 'absent') await createCluster(where.folder);
    removeStalePid(where.folder);
    options.fs = new DurableNodeFs(where.folder, where);
    options.startParams = START_PARAMETERS;
  } else if (where.dump) options.loadDataDir = where.dump;
  const pglite = await PGlite.create(options);
  const flushes = new GroupFlush(async (begun) => {
    await pglite.transaction(async (tx) => {
      begun();
      await tx.query(FLUSH_LOG);
    });
  });

  let written = 0;
  const run = async <Row>(runner: Pick<PGlite, 'query'>, sql: string, values: readonly SqlValue[]): Promise<Row[]> => {
    const { rows, affectedRows } = await runner.query<Row>(sql, [...values]);
    if (!READS.test(sql)) written += affectedRows ?? 0;
    return rows;
  };
  const mustHaveRoom = (): void => {
    if (isOnDisk && where.hasRoom?.() === false)
      throw new Failure('storage-full', 'There is no space left in the data folder.');
  };
  /** Acknowledged only when it is on disk. */
  const kept = async <T>(work: () => Promise<T>): Promise<T> => {
    mustHaveRoom();
    const result = await work();
    if (isOnDisk) {
      await flushes.request();
      statistics.note(written);
      written = 0;
    }
    return result;
  };
  const transaction = <T>(work: (tx: Transaction) => Promise<T>): Promise<T> => {
    const device = notingDevice();
    return kept(() =>
      pglite.transaction(async (tx) => {
        // What is noted at this machine needs no word.
        if (device !== null) await tx.query("SELECT set_config('sediment.device', $1, true)", [device]);
        return work({
          query: <Row>(sql: string, values: readonly SqlValue[] = []) => run<Row>(tx, sql, values),
          script: (sql) => tx.exec(sql).then(() => undefined),
        });
      }),
    );
  };
  const query = <Row>(sql: string, values: readonly SqlValue[] = []): Promise<Row[]> => {
    if (READS.test(sql)) return run<Row>(pglite, sql, values);
    return notingDevice() === null
      ? kept(() => run<Row>(pglite, sql, values))
      : transaction((tx) => tx.query<Row>(sql, values));
  };
  const script = (sql: string): Promise<void> => kept(() => pglite.exec(sql).then(() => undefined));
  const statistics = new TableStatistics({
    known: async () => (await knownStatistics({ query })).rows,
    renew: () => renewStatistics({ query, script }),
    report: (isOnDisk ? where.report : null) ?? ((error) => process.emitWarning(String(error))),
    ...(isOnDisk && where.quietMs !== undefined ? { quietMs: where.quietMs } : {}),
  });
  if (isOnDisk) await statistics.start();
  return {
    pglite,
    query,
    transaction,
    script,
    close: async () => {
      await statistics.close();
      await pglite.close();
    },
  };
}
