import { closeSync, fsyncSync, openSync, readdirSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { join } from 'node:path';

/** Puts a file, or the entries of a folder, on disk for good: after this, a power cut does not take it back. */
export async function flush(path: string): Promise<void> {
  const handle = await open(path, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

/** Puts a folder and everything in it on disk for good. */
export function flushTree(folder: string): void {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) flushTree(path);
    else if (entry.isFile()) flushNow(path);
  }
  flushNow(folder);
}

function flushNow(path: string): void {
  const descriptor = openSync(path, 'r');
  try {
    fsyncSync(descriptor);
  } finally {
    closeSync(descriptor);
  }
}
