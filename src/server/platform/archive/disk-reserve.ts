import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  rmSync,
  statfsSync,
  statSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';

/** Two segments of the database's log. */
export const RESERVE_BYTES = 32 * 2 ** 20;
/** With less than this left beside the reserve, nothing more is taken in. */
export const LEAST_FREE_BYTES = 16 * 2 ** 20;
const PIECE_BYTES = 2 ** 20;

/** Space that is kept for the database to end what it has begun when a disk is full. */
export interface DiskReserve {
  /** Gives the reserve up. @returns whether there was one */
  release(): boolean;
  /** Whether there is room for more; takes the reserve again as soon as there is. */
  hasRoom(): boolean;
}

/**
 * A file of real bytes in the data folder that can be given up in an emergency.
 *
 * @param folder - the data folder
 * @throws ENOSPC where there is no room for it
 */
export function openDiskReserve(folder: string): DiskReserve {
  mkdirSync(folder, { recursive: true });
  const path = join(folder, 'disk-reserve');
  const isThere = (): boolean => existsSync(path) && statSync(path).size === RESERVE_BYTES;
  const free = (): number => {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize;
  };
  const take = (): void => {
    const file = openSync(path, 'w');
    try {
      // Bytes that no file system stores as a hole.
      const piece = Buffer.alloc(PIECE_BYTES, 0x5e);
      for (let at = 0; at < RESERVE_BYTES;) at += writeSync(file, piece, 0, PIECE_BYTES, at);
      fsyncSync(file);
    } catch (error) {
      rmSync(path, { force: true });
      throw error;
    } finally {
      closeSync(file);
    }
  };
  if (!isThere()) take();
  let isHeld = true;
  return {
    release() {
      if (!isHeld) return false;
      rmSync(path, { force: true });
      isHeld = false;
      return true;
    },
    hasRoom() {
      if (!isHeld && free() > RESERVE_BYTES + LEAST_FREE_BYTES) {
        take();
        isHeld = true;
      }
      return isHeld && free() > LEAST_FREE_BYTES;
    },
  };
}
