import { existsSync, readdirSync, renameSync, rmdirSync } from 'node:fs';
import { join } from 'node:path';
import type { DiskReserve } from '../archive/disk-reserve';
import { folderProblem, StartRefused } from '../start-refused';
import { clusterState } from './cluster';
import type { Database } from './database';
import { openPglite } from './pglite-database';

/** How to open the database of a data folder. */
export interface OpenDatabaseOptions {
  readonly reserve: DiskReserve;
  /** Somebody has said that the old database is lost: it is set aside, and a new one made beside the clips. */
  readonly anew?: boolean;
  readonly now: () => Date;
  readonly report: (error: unknown) => void;
}

/**
 * Opens the database of a data folder. A new one is made in an empty folder only: beside clips, a missing or damaged
 * database means that something was lost, and going on would hide it.
 *
 * @param folder - the data folder; its lock is held
 * @throws {@link StartRefused} for a missing or damaged database
 */
export async function openDatabase(folder: string, options: OpenDatabaseOptions): Promise<Database> {
  const cluster = join(folder, 'database');
  if (existsSync(cluster) && readdirSync(cluster).length === 0) rmdirSync(cluster);
  if (options.anew && existsSync(cluster))
    renameSync(cluster, `${cluster}.set-aside-${options.now().toISOString().replaceAll(/[:.]/g, '-')}`);
  const state = clusterState(cluster);
  if (state === 'damaged') throw damaged(folder, 'files are missing or empty');
  if (state === 'absent' && !options.anew && hasClips(folder)) throw missing(folder);
  const { reserve } = options;
  try {
    const database = await openPglite({
      folder: cluster,
      onFull: () => reserve.release(),
      hasRoom: () => reserve.hasRoom(),
      report: options.report,
    });
    await readEverywhere(database);
    return database;
  } catch (error) {
    // Whatever PostgreSQL has against a cluster that was whole before: full and read-only disks have words of their own.
    if (folderProblem(error, folder)) throw error;
    throw damaged(folder, (error as { code?: string }).code ?? 'it does not open');
  }
}

/** One row of each table: a file that is gone or damaged at its beginning shows at the start, not in the middle of work. */
async function readEverywhere(database: Database): Promise<void> {
  const tables = await database.query<{ name: string }>(
    "SELECT quote_ident(tablename) AS name FROM pg_tables WHERE schemaname = 'public'",
  );
  for (const { name } of tables) await database.query(`SELECT * FROM ${name} LIMIT 1`);
}

function hasClips(folder: string): boolean {
  const clips = join(folder, 'clips');
  return existsSync(clips) && readdirSync(clips).some((shelf) => /^[0-9a-f]{2}$/.test(shelf));
}

const WAY_OUT =
  'Put the folder "database" of your last backup in its place, then start again. If there is no backup: start once ' +
  'with --new-database. The clips are kept and listed then; runs, prices and points have to be imported again, and ' +
  'the old database is set aside, not deleted.';

const damaged = (folder: string, why: string): StartRefused =>
  new StartRefused(
    `The database in ${folder} is damaged (${why}). Nothing was changed; the clips are untouched. ${WAY_OUT}`,
  );
const missing = (folder: string): StartRefused =>
  new StartRefused(
    `There are clips in ${folder}, but no database. Nothing was changed; the clips are untouched. ${WAY_OUT}`,
  );
