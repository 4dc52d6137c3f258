import { access, mkdir, readdir, rename, rm } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import type { Edition } from '#contracts/edition';
import { sharedPicture } from '#press/press';
import type { WorkerPool } from '../platform/worker-pool';

/** Raised when pictures are drawn otherwise. */
const PICTURE_VERSION = 1;

/** Pictures that go with links to editions, drawn once and kept under derived/; what is missing is drawn again. */
export class SharedPictures {
  private readonly folder: string;

  constructor(
    dataFolder: string,
    private readonly pool: WorkerPool,
  ) {
    this.folder = join(dataFolder, 'derived', 'shared');
  }

  /** Removes what an ended process left half-written. */
  async sweep(): Promise<void> {
    const names = await readdir(this.folder).catch(() => []);
    for (const name of names) if (name.endsWith('.part')) await rm(join(this.folder, name), { force: true });
  }

  /** Name of the file of an edition, by the hash of its document. */
  nameOf(sha256: string): string {
    return `${sha256.slice(0, 32)}.v${PICTURE_VERSION}.png`;
  }

  /** Where the picture of an edition lies. */
  async path(edition: Edition, sha256: string): Promise<string> {
    const into = join(this.folder, this.nameOf(sha256));
    const isThere = await access(into).then(
      () => true,
      () => false,
    );
    if (isThere) return into;
    await mkdir(this.folder, { recursive: true });
    const part = `${into}.${randomUUID()}.part`;
    try {
      await this.pool.run('draw-picture', { svg: sharedPicture(edition), into: part });
      await rename(part, into);
    } catch (error) {
      await rm(part, { force: true });
      throw error;
    }
    return into;
  }
}
