import { closeSync, existsSync, fsyncSync, linkSync, openSync, rmSync, writeSync } from 'node:fs';
import { dirname, join, basename } from 'node:path';

/**
 * Writes a file so that it is there whole or not at all, and never over another one: pieces go to a hidden file beside
 * it, which gets its name at the end.
 *
 * @param path - must not exist
 * @param fill - hands over the pieces in turn
 * @throws Error where a file of that name is there already, or its folder is not
 */
export async function writeNewFile(
  path: string,
  fill: (write: (piece: Uint8Array) => void) => void | Promise<void>,
): Promise<void> {
  if (existsSync(path)) throw new Error(`${path} is there already; nothing was written. Choose another name.`);
  if (!existsSync(dirname(path))) throw new Error(`${dirname(path)}: there is no such folder; nothing was written.`);
  const partial = join(dirname(path), `.${basename(path)}.${process.pid}.part`);
  const descriptor = openSync(partial, 'wx');
  try {
    try {
      await fill((piece) => {
        for (let at = 0; at < piece.length;) at += writeSync(descriptor, piece, at);
      });
      fsyncSync(descriptor);
    } finally {
      closeSync(descriptor);
    }
    // A link, unlike a renaming, fails where somebody else has taken the name in between.
    linkSync(partial, path);
  } finally {
    rmSync(partial, { force: true });
  }
}
