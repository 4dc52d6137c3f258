import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { SPECTROGRAM } from '#core/dsp/spectrogram';
import type { SpectrogramJson } from '#contracts/take-page';
import type { DrawnSpectrogram, DrawSpectrogramTask } from '#worker/draw-spectrogram';
import type { ClipStore } from '../archive/clip-store';
import { Failure } from '../failures';
import type { WorkerPool } from './worker-pool';

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
    const path = join(this.folder, `${sha256}.spectrogram-${PICTURE_VERSION}`);
    try {
      return await readFile(path);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    }
    const clip = await this.store.find(sha256);
    if (!clip) throw new Failure('not-found', 'There is no such clip in the archive.');
    const { levels } = await this.pool.run<DrawnSpectrogram>('draw-spectrogram', {
      path: clip,
    } satisfies DrawSpectrogramTask);
    await mkdir(this.folder, { recursive: true });
    const partial = join(this.folder, `${randomUUID()}.part`);
    await writeFile(partial, levels);
    await rename(partial, path);
    return levels;
  }
}
