import { join } from 'node:path';
import type { FrozenLane } from '#contracts/edition';
import { clipKey } from '#press/press';
import type { PublishClipTask } from '#worker/tasks/publish-clip';
import type { ClipStore } from '../platform/archive/clip-store';
import type { WorkerPool } from '../platform/worker-pool';
import { DerivedFiles } from './derived-files';

/** How clips are packed that are handed out. */
export type ClipPacking = PublishClipTask['format'];

/** Raised when copies are made otherwise. */
const COPY_VERSION = 1;

/** Copies of clips as they are handed out, at the level of their deck. */
export class HandedClips {
  private readonly files: DerivedFiles;

  constructor(
    dataFolder: string,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
  ) {
    this.files = new DerivedFiles(join(dataFolder, 'derived', 'handed'));
  }

  sweep(): Promise<void> {
    return this.files.sweep();
  }

  /** Deletes the copies of a clip that was deleted. */
  forget(sha256: string): Promise<void> {
    return this.files.forget(sha256.slice(0, 16));
  }

  /** Whether the archive has a clip; nothing is said of its bytes. */
  async has(sha256: string): Promise<boolean> {
    return (await this.store.find(sha256)) !== null;
  }

  /** Name of the file of a copy. */
  nameOf(lane: Pick<FrozenLane, 'sha256' | 'appliedDb'>, packing: ClipPacking): string {
    const kind = packing.codec === 'flac' ? 'flac' : `${packing.kbps}.opus`;
    return `${clipKey(lane)}.v${COPY_VERSION}.${kind}`;
  }

  /** Where the copy of a lane lies; null where the archive has its clip no more. */
  path(lane: Pick<FrozenLane, 'sha256' | 'appliedDb'>, format: ClipPacking): Promise<string | null> {
    return this.files.path(this.nameOf(lane, format), async (into) => {
      const path = await this.store.verified(lane.sha256);
      if (path === null) return false;
      await this.pool.run('publish-clip', { path, into, gainDb: lane.appliedDb, format });
      return true;
    });
  }
}
