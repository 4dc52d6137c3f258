import { createHash, randomUUID } from 'node:crypto';
import { access, mkdir, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { flush } from './flush';

/** Photographs as files, named by the SHA-256 of their bytes: photos/ab/abcd….jpeg. */
export class PhotoStore {
  constructor(private readonly folder: string) {}

  private pathOf(sha256: string, format: string): string {
    return join(this.folder, 'photos', sha256.slice(0, 2), `${sha256}.${format}`);
  }

  /** Keeps bytes for good: they are there whole or not at all. @returns their hash */
  async keep(bytes: Uint8Array, format: string): Promise<string> {
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const path = this.pathOf(sha256, format);
    if (await isThere(path)) return sha256;
    const partial = join(this.folder, 'incoming', `${randomUUID()}.part`);
    try {
      await mkdir(dirname(partial), { recursive: true });
      await mkdir(dirname(path), { recursive: true });
      await writeFile(partial, bytes, { flush: true });
      await rename(partial, path);
    } catch (error) {
      await rm(partial, { force: true });
      throw error;
    }
    await flush(dirname(path));
    return sha256;
  }

  /** Path of a photograph, or null. */
  async find(sha256: string, format: string): Promise<string | null> {
    const path = this.pathOf(sha256, format);
    return (await isThere(path)) ? path : null;
  }

  /** Deletes one for good; one that is not there is gone already. */
  async remove(sha256: string, format: string): Promise<void> {
    await rm(this.pathOf(sha256, format), { force: true });
  }
}

const isThere = (path: string): Promise<boolean> =>
  access(path).then(
    () => true,
    () => false,
  );
