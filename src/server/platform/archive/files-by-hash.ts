import { createHash, randomUUID } from 'node:crypto';
import { access, mkdir, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { IncomingFile } from './clip-store';
import { flush } from './flush';

/** Files beside the clips, named by the SHA-256 of their bytes: photos/ab/abcd….jpeg, originals/ab/abcd….mp3. */
export class FilesByHash {
  /**
   * @param folder - data folder
   * @param shelf - folder in it
   */
  constructor(
    private readonly folder: string,
    private readonly shelf: 'photos' | 'originals',
  ) {}

  private pathOf(sha256: string, extension: string): string {
    return join(this.folder, this.shelf, sha256.slice(0, 2), `${sha256}.${extension}`);
  }

  /** Keeps bytes for good: they are there whole or not at all. @returns their hash */
  async keep(bytes: Uint8Array, extension: string): Promise<string> {
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    if (await this.find(sha256, extension)) return sha256;
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

  /** Deletes one for good; one that is not there is gone already. */
  async remove(sha256: string, extension: string): Promise<void> {
    await rm(this.pathOf(sha256, extension), { force: true });
  }
}
