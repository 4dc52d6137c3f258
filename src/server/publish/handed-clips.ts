import { access, mkdir, readdir, rename, rm } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import type { FrozenLane } from '#contracts/edition';
import { clipKey } from '#press/press';
import type { PublishClipTask } from '#worker/tasks/publish-clip';
import type { ClipStore } from '../platform/archive/clip-store';
import type { WorkerPool } from '../platform/worker-pool';

/** How clips are packed that are handed out. */
export type ClipPacking = PublishClipTask['format'];

/** Raised when copies are made otherwise. */
const COPY_VERSION = 1;

/**
 * Copies of clips as they are handed out, at the level of their deck, made once and kept as files under derived/. They
 * can be deleted at any time: what is missing is made again.
 */
export class HandedClips {
  private readonly folder: string;
  private readonly making = new Map<string, Promise<string | null>>();

  constructor(
    dataFolder: string,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
  ) {
    this.folder = join(dataFolder, 'derived', 'handed');
  }

  /** Removes what an ended process left half-written. */
  async sweep(): Promise<void> {
    const names = await readdir(this.folder).catch(() => []);
    for (const name of names) if (name.endsWith('.part')) await rm(join(this.folder, name), { force: true });
  }

  /** Deletes the copies of a clip that was deleted. */
  async forget(sha256: string): Promise<void> {
    const names = await readdir(this.folder).catch(() => []);
    for (const name of names)
      if (name.startsWith(sha256.slice(0, 16))) await rm(join(this.folder, name), { force: true });
  }

  /** Name of the file of a copy. */
  nameOf(lane: Pick<FrozenLane, 'sha256' | 'appliedDb'>, packing: ClipPacking): string {
    const kind = packing.codec === 'flac' ? 'flac' : `${packing.kbps}.opus`;
    return `${clipKey(lane)}.v${COPY_VERSION}.${kind}`;
  }

  /** Where the copy of a lane lies; null where the archive has its clip no more. */
  async path(lane: Pick<FrozenLane, 'sha256' | 'appliedDb'>, packing: ClipPacking): Promise<string | null> {
    const into = join(this.folder, this.nameOf(lane, packing));
    let made = this.making.get(into);
    if (!made) {
      made = this.make(lane, packing, into).finally(() => this.making.delete(into));
      this.making.set(into, made);
    }
    return made;
  }

  private async make(
    { sha256, appliedDb }: Pick<FrozenLane, 'sha256' | 'appliedDb'>,
    format: ClipPacking,
    into: string,
  ): Promise<string | null> {
    const isThere = await access(into).then(
      () => true,
      () => false,
    );
    if (isThere) return into;
    const path = await this.store.verified(sha256);
    if (path === null) return null;
    await mkdir(this.folder, { recursive: true });
    // Under another name until it is whole: an ended process leaves nothing that looks finished.
    const part = `${into}.${randomUUID()}.part`;
    try {
      await this.pool.run('publish-clip', { path, into: part, gainDb: appliedDb, format });
      await rename(part, into);
    } catch (error) {
      await rm(part, { force: true });
      throw error;
    }
    return into;
  }
}
