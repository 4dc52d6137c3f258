import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { access, mkdir, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, join, relative } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { IncomingFile } from './clip-store';
import { flush } from './flush';

/** Where files beside the clips lie in the data folder. */
export type Shelf = 'photos' | 'originals';

/** Files beside the clips, named by the SHA-256 of their bytes: photos/ab/abcd….jpeg, originals/ab/abcd….mp3. */
export class FilesByHash {
  /**
   * @param folder - data folder
   * @param shelf - folder in it
   */
  constructor(
    private readonly folder: string,
    readonly shelf: Shelf,
  ) {}

  private pathOf(sha256: string, extension: string): string {
    return join(this.folder, this.shelf, sha256.slice(0, 2), `${sha256}.${extension}`);
  }

  /** Keeps bytes for good: they are there whole or not at all. @returns their hash */
  async keep(bytes: Uint8Array, extension: string): Promise<string> {
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    // One that is there but damaged is replaced.
    if ((await this.check(sha256, extension)) === null) return sha256;
    const partial = join(this.folder, 'incoming', `${randomUUID()}.part`);
    try {
      await mkdir(dirname(partial), { recursive: true });
      await writeFile(partial, bytes, { flush: true });
      await this.move(partial, this.pathOf(sha256, extension));
    } catch (error) {
      await rm(partial, { force: true });
      throw error;
    }
    return sha256;
  }

  /** Moves a file that has arrived to its place for good. */
  async keepFile({ path, sha256 }: IncomingFile, extension: string): Promise<void> {
    await flush(path);
    await this.move(path, this.pathOf(sha256, extension));
  }

  private async move(from: string, to: string): Promise<void> {
    await mkdir(dirname(to), { recursive: true });
    await rename(from, to);
    await flush(dirname(to));
  }

  /** Path of a file, or null. */
  async find(sha256: string, extension: string): Promise<string | null> {
    const path = this.pathOf(sha256, extension);
    return access(path).then(
      () => path,
      () => null,
    );
  }

  /** Reads a file, and holds its bytes against its name. */
  async check(sha256: string, extension: string): Promise<'missing' | 'damaged' | null> {
    const path = await this.find(sha256, extension);
    if (path === null) return 'missing';
    const hash = createHash('sha256');
    await pipeline(createReadStream(path), hash);
    return hash.digest('hex') === sha256 ? null : 'damaged';
  }

  /** Everything that lies there: path within the data folder, name of the file, bytes. */
  async list(): Promise<{ readonly path: string; readonly file: string; readonly bytes: number }[]> {
    const root = join(this.folder, this.shelf);
    const entries = await readdir(root, { recursive: true, withFileTypes: true }).catch((error: unknown) => {
      // Nothing was ever put there.
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return [];
      throw error;
    });
    return Promise.all(
      entries
        .filter((e) => e.isFile())
        .map(async (e) => {
          const path = join(e.parentPath, e.name);
          return { path: relative(this.folder, path), file: e.name, bytes: (await stat(path)).size };
        }),
    );
  }

  /** Deletes one for good; one that is not there is gone already. */
  async remove(sha256: string, extension: string): Promise<void> {
    await rm(this.pathOf(sha256, extension), { force: true });
  }
}
