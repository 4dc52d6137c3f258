import { existsSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { flush, flushTree } from '../archive/flush';
import { DurableNodeFs } from './durable-node-fs';

/** What lies where a cluster is looked for. */
export type ClusterState = 'absent' | 'whole' | 'damaged';

/** Files without which PostgreSQL does not open a cluster. */
const NEEDED = ['PG_VERSION', 'global/pg_control', 'base', 'pg_wal'] as const;

/** @param folder - of the cluster */
export function clusterState(folder: string): ClusterState {
  if (!existsSync(folder) || readdirSync(folder).length === 0) return existsSync(folder) ? 'damaged' : 'absent';
  const isWhole = NEEDED.every((name) => {
    const path = join(folder, name);
    return existsSync(path) && (statSync(path).isDirectory() || statSync(path).size > 0);
  });
  return isWhole ? 'whole' : 'damaged';
}

/**
 * Makes a new cluster: beside its place, flushed, and only then moved there. It is there whole or not at all.
 *
 * @param folder - where it will be
 */
export async function createCluster(folder: string): Promise<void> {
  const beside = `${folder}.new`;
  rmSync(beside, { recursive: true, force: true });
  const pglite = await PGlite.create({ fs: new DurableNodeFs(beside) });
  await pglite.close();
  flushTree(beside);
  renameSync(beside, folder);
  await flush(dirname(folder));
}

/**
 * Takes away what a power cut has left of a process that held the cluster: PostgreSQL refuses to start beside an
 * empty one. Only whoever holds the lock of the data folder may do this.
 */
export function removeStalePid(folder: string): void {
  rmSync(join(folder, 'postmaster.pid'), { force: true });
}
