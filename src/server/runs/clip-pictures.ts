import { mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { SPECTROGRAM } from '#core/dsp/spectrogram';
import type { SpectrogramJson } from '#contracts/take-page';
import type { DrawSpectrogramTask } from '#worker/tasks/draw-spectrogram';
import type { ClipStore } from '../platform/archive/clip-store';
import { Failure } from '../platform/failure';
import type { WorkerPool } from '../platform/worker-pool';

/** Raised when pictures are drawn otherwise. */
const PICTURE_VERSION = 1;

/**
 * Spectrograms, drawn once and kept as files under derived/. They can be deleted at any time: what is missing is
 * drawn again.
 */
export class ClipPictures {
  private readonly folder: string;
  private readonly drawing = new Map<string, Promise<Uint8Array>>();

  constructor(
    dataFolder: string,
    private readonly store: ClipStore,
    private readonly pool: WorkerPool,
  ) {
    this.folder = join(dataFolder, 'derived');
  }

  /** Removes what an ended process left half-written. */
  async sweep(): Promise<void> {
    const names = await readdir(this.folder).catch(() => []);
    for (const name of names) if (name.endsWith('.part')) await rm(join(this.folder, name), { force: true });
  }

  /** Deletes the picture of a clip that was deleted. */
  async forget(sha256: string): Promise<void> {
    await rm(this.pathOf(sha256), { force: true });
  }

  private pathOf(sha256: string): string {
    return join(this.folder, `${sha256}.spectrogram-${PICTURE_VERSION}`);
  }

  /** @throws Failure `not-found` */
  async spectrogram(sha256: string): Promise<SpectrogramJson> {
    let levels = this.drawing.get(sha256);
    if (!levels) {
      levels = this.load(sha256).finally(() => this.drawing.delete(sha256));
      this.drawing.set(sha256, levels);
    }
    const bytes = await levels;
    const { rows, lowHz, highHz } = SPECTROGRAM;
    return { columns: bytes.length / rows, rows, lowHz, highHz, levels: Buffer.from(bytes).toString('base64') };
  }

  private async load(sha256: string): Promise<Uint8Array> {
    const path = this.pathOf(sha256);
    try {
      const kept = await readFile(path);
      // One that a crash has cut off is drawn again.
      if (kept.length > 0 && kept.length % SPECTROGRAM.rows === 0) return kept;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    }
    const clip = await this.store.verified(sha256);
    if (!clip) throw new Failure('not-found', 'There is no such clip in the archive.');
    const { levels } = await this.pool.run('draw-spectrogram', {
      path: clip,
    } satisfies DrawSpectrogramTask);
    const partial = join(this.folder, `${randomUUID()}.part`);
    try {
      await mkdir(this.folder, { recursive: true });
      await writeFile(partial, levels, { flush: true });
      await rename(partial, path);
    } catch (error) {
      await rm(partial, { force: true });
      // The picture is there; only keeping it has failed, and it can be drawn again.
      if (!['ENOSPC', 'EDQUOT', 'EROFS', 'EACCES'].includes((error as NodeJS.ErrnoException).code ?? '')) throw error;
    }
    return levels;
  }
}
