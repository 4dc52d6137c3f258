import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Who holds a data folder. */
export interface LockHolder {
  readonly pid: number;
  /** When that process began, as the system counts it; tells a reused process id from the holder. */
  readonly startTicks: string | null;
  /** Port of the server; null while it is starting, and for the command line. */
  readonly port: number | null;
}

/** The data folder is in use by another process. */
export class FolderInUse extends Error {
  override readonly name = 'FolderInUse';
  constructor(
    readonly folder: string,
    readonly holder: LockHolder,
  ) {
    super(`The data folder ${folder} is in use by another Sediment (process ${holder.pid}).`);
  }
}

export interface FolderLock {
  /** Notes the server's port for the command line to find. */
  announce(port: number): void;
  release(): void;
}

/**
 * Takes a data folder for this process. The lock is a file with the holder's process id; a lock whose holder is
 * gone (killed, power cut) is taken over.
 *
 * @throws {@link FolderInUse}
 */
export function lockDataFolder(folder: string): FolderLock {
  mkdirSync(folder, { recursive: true });
  const path = join(folder, 'in-use.json');
  const self: LockHolder = { pid: process.pid, startTicks: startTicksOf(process.pid), port: null };
  for (let attempt = 0; ; attempt++) {
    try {
      writeFileSync(path, JSON.stringify(self), { flag: 'wx' });
      break;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
      const holder = readLock(folder);
      if (holder && isAlive(holder)) throw new FolderInUse(folder, holder);
      if (attempt > 2) throw error;
      rmSync(path, { force: true });
    }
  }
  return {
    announce: (port) => writeFileSync(path, JSON.stringify({ ...self, port })),
    release: () => rmSync(path, { force: true }),
  };
}

/** The living holder of a data folder, or null. */
export function holderOf(folder: string): LockHolder | null {
  const holder = readLock(folder);
  return holder && isAlive(holder) ? holder : null;
}

function readLock(folder: string): LockHolder | null {
  try {
    const value = JSON.parse(readFileSync(join(folder, 'in-use.json'), 'utf8')) as Partial<LockHolder>;
    if (typeof value.pid !== 'number') return null;
    return { pid: value.pid, startTicks: value.startTicks ?? null, port: value.port ?? null };
  } catch {
    // No lock, or one that was half-written by a killed process: nobody holds it.
    return null;
  }
}

function isAlive(holder: LockHolder): boolean {
  if (holder.pid === process.pid) return holder.startTicks === startTicksOf(process.pid);
  try {
    process.kill(holder.pid, 0);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ESRCH') return false;
  }
  const ticks = startTicksOf(holder.pid);
  return ticks === null || holder.startTicks === null || ticks === holder.startTicks;
}

/** Start time of a process from /proc (field 22); null on systems without it. */
function startTicksOf(pid: number): string | null {
  try {
    const text = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return text.slice(text.lastIndexOf(')') + 2).split(' ')[19] ?? null;
  } catch {
    return null;
  }
}
