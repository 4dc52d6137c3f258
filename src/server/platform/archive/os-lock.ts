import { spawnSync } from 'node:child_process';
import { closeSync, constants, openSync } from 'node:fs';
import { StartRefused } from '../start-refused';

/** BSD's open flag for an exclusive lock on the open file; Node passes flags through. */
const O_EXLOCK = 0x20;
/** What flock(1) answers when somebody else has the lock. */
const HELD_BY_OTHERS = 9;

/** A lock that the operating system takes away when this process ends, however it ends. */
export interface OsLock {
  release(): void;
}

/**
 * Locks a file for this process (flock). The lock belongs to the open file, so it holds between process namespaces,
 * containers and users of one machine, and goes with the last process that has the file open.
 *
 * On Linux, flock(1) is run once on a descriptor that it shares with this process; on systems of BSD descent, the file
 * is opened with the lock. Windows has neither: there, the heartbeat alone tells.
 *
 * @param path - lock file; made where there is none, never removed
 * @returns null where another process has it
 * @throws {@link StartRefused} where the file system cannot lock
 */
export function takeOsLock(path: string): OsLock | null {
  const { O_RDWR, O_CREAT, O_NONBLOCK } = constants;
  if (process.platform === 'darwin') {
    try {
      return held(openSync(path, O_RDWR | O_CREAT | O_NONBLOCK | O_EXLOCK));
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      if (code === 'EAGAIN') return null;
      if (code === 'ENOTSUP' || code === 'EOPNOTSUPP') throw cannotLock(path, code);
      throw error;
    }
  }
  const descriptor = openSync(path, O_RDWR | O_CREAT);
  if (process.platform === 'win32') return held(descriptor);
  const { status, error, stderr } = spawnSync(
    'flock',
    ['--exclusive', '--nonblock', '--conflict-exit-code', String(HELD_BY_OTHERS), '3'],
    { stdio: ['ignore', 'ignore', 'pipe', descriptor] },
  );
  if (status === 0) return held(descriptor);
  closeSync(descriptor);
  if (status === HELD_BY_OTHERS) return null;
  throw cannotLock(path, error?.message ?? stderr.toString().trim());
}

const held = (descriptor: number): OsLock => ({ release: () => closeSync(descriptor) });

const cannotLock = (path: string, why: string): StartRefused =>
  new StartRefused(
    `The file ${path} cannot be locked (${why}), so two Sediments could write to one archive and lose each other's work. Nothing was changed. Set SEDIMENT_DATA to a folder on a disk of this machine.`,
  );
