import { join } from 'node:path';
import type { Edition } from '#contracts/edition';
import { sharedPicture } from '#press/press';
import type { WorkerPool } from '../platform/worker-pool';
import { DerivedFiles } from './derived-files';

/** Raised when pictures are drawn otherwise. */
const PICTURE_VERSION = 1;

/** Pictures that go with links to editions. */
export class SharedPictures {
  private readonly files: DerivedFiles;

  constructor(
    dataFolder: string,
    private readonly pool: WorkerPool,
  ) {
    this.files = new DerivedFiles(join(dataFolder, 'derived', 'shared'));
  }

  sweep(): Promise<void> {
    return this.files.sweep();
  }

  /** Name of the file of an edition, by the hash of its document. */
  nameOf(sha256: string): string {
    return `${sha256.slice(0, 32)}.v${PICTURE_VERSION}.png`;
  }

  /** Where the picture of an edition lies. */
  async path(edition: Edition, sha256: string): Promise<string> {
    const path = await this.files.path(this.nameOf(sha256), async (into) => {
      await this.pool.run('draw-picture', { svg: sharedPicture(edition), into });
      return true;
    });
    if (path === null) throw new Error('a picture is made from its edition alone');
    return path;
  }
}
