import { randomUUID } from 'node:crypto';
import { mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { isDiskFull } from './disk-full';
import { takeOsLock } from './os-lock';

const holderSchema = z.object({
  /** Of this start: no two processes have the same. */
  id: z.string(),
  host: z.string(),
  pid: z.number(),
  /** Port of the server; null while it is starting, and for the command line. */
  port: z.number().nullable(),
  /** Rises while the holder lives. */
  beat: z.number(),
});

/** Who holds a data folder. */
export type LockHolder = z.infer<typeof holderSchema>;

/** The data folder is in use by another process. */
export class FolderInUse extends Error {
  override readonly name = 'FolderInUse';
  constructor(
    readonly folder: string,
    readonly holder: LockHolder | null,
  ) {
    const who = holder ? ` (process ${holder.pid} on ${holder.host})` : '';
    super(`The data folder ${folder} is in use by another Sediment${who}.`);
  }
}

export interface FolderLock {
  /** Notes the server's port for the command line to find. */
  announce(port: number): void;
  release(): void;
}

/** How the lock sees the world; tests give their own. */
export interface LockClock {
  readonly host: string;
  readonly beatMs: number;
  /** Called where another process has taken the folder over: nothing may be written any more. */
  readonly onLost: (holder: LockHolder) => void;
}

const usualClock: LockClock = {
  host: hostname(),
  beatMs: 2_000,
  onLost: (holder) => {
    process.stderr.write(
      `The data folder was taken over by process ${holder.pid} on ${holder.host}. This Sediment ends, so that nothing is written twice.\n`,
    );
    process.exit(1);
  },
};
/** Beats that a holder on another machine may miss before it counts as gone. */
const MISSED_BEATS = 4;

/**
 * Takes a data folder for this process. On one machine an operating-system lock decides ({@link takeOsLock}); a shared
 * folder may reach machines that do not see each other's locks, so the holder also notes its host and keeps a count
 * rising, and whoever finds a holder of another host waits whether it rises.
 *
 * @throws {@link FolderInUse}; StartRefused where the folder cannot be locked
 */
export async function lockDataFolder(folder: string, clock: Partial<LockClock> = {}): Promise<FolderLock> {
  const { host, beatMs, onLost } = { ...usualClock, ...clock };
  mkdirSync(folder, { recursive: true });
  const osLock = takeOsLock(lockPath(folder));
  if (!osLock) throw new FolderInUse(folder, readHolder(folder));
  try {
    await foreignHolderGone(folder, host, beatMs * MISSED_BEATS);
  } catch (error) {
    osLock.release();
    throw error;
  }
  let self: LockHolder = { id: randomUUID(), host, pid: process.pid, port: null, beat: 0 };
  const note = (): void => writeHolder(folder, self);
  note();
  const beating = setInterval(() => {
    const found = readHolder(folder);
    if (found && found.id !== self.id) {
      clearInterval(beating);
      onLost(found);
      return;
    }
    self = { ...self, beat: self.beat + 1 };
    try {
      note();
    } catch (error) {
      // A full disk must not end the process that is about to say so.
      if (!isDiskFull(error)) throw error;
    }
  }, beatMs);
  beating.unref();
  let isReleased = false;
  return {
    announce(port) {
      self = { ...self, port };
      note();
    },
    release() {
      if (isReleased) return;
      isReleased = true;
      clearInterval(beating);
      if (readHolder(folder)?.id === self.id) rmSync(holderPath(folder), { force: true });
      osLock.release();
    },
  };
}

/** The living holder of a data folder, or null. One on another machine counts as living: only waiting could tell. */
export function holderOf(folder: string): LockHolder | null {
  const holder = readHolder(folder);
  if (!holder || holder.host !== hostname()) return holder;
  const lock = takeOsLock(lockPath(folder));
  lock?.release();
  return lock ? null : holder;
}

async function foreignHolderGone(folder: string, host: string, waitMs: number): Promise<void> {
  const before = readHolder(folder);
  if (!before || before.host === host) return;
  await new Promise((resolve) => setTimeout(resolve, waitMs));
  const after = readHolder(folder);
  if (after && (after.id !== before.id || after.beat !== before.beat)) throw new FolderInUse(folder, after);
}

const lockPath = (folder: string): string => join(folder, 'in-use.lock');
const holderPath = (folder: string): string => join(folder, 'in-use.json');

function writeHolder(folder: string, holder: LockHolder): void {
  const beside = `${holderPath(folder)}.part`;
  writeFileSync(beside, JSON.stringify(holder));
  renameSync(beside, holderPath(folder));
}

function readHolder(folder: string): LockHolder | null {
  try {
    return holderSchema.parse(JSON.parse(readFileSync(holderPath(folder), 'utf8')));
  } catch {
    // No lock, or one that was half-written by a killed process, or of an older version: the system's lock decides.
    return null;
  }
}
