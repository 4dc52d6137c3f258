import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, open, readdir, readFile, rm, stat, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Clip } from '#contracts/clip';
import { newUploadSchema, type NewUpload, type Upload } from '#contracts/upload';
import { flush } from '../platform/archive/flush';
import { Failure } from '../platform/failure';
import type { ClipIngest } from './clip-ingest';

/** An upload that nobody went on with is thrown away after this time. */
const KEPT_MS = 7 * 24 * 3_600_000;
/** Uploads that may be open at a time. */
const MOST_OPEN = 200;

/**
 * Files that come in parts, over hours and broken connections: uploads/<id>/ holds what is sent (meta.json) and the
 * bytes that have arrived. What was acknowledged is on disk; the next part begins behind it, after a restart as well.
 */
export class Uploads {
  private readonly folder: string;
  private readonly busy = new Set<string>();

  constructor(
    dataFolder: string,
    private readonly ingest: ClipIngest,
    private readonly now: () => Date,
  ) {
    this.folder = join(dataFolder, 'uploads');
  }

  /** @throws Failure `storage-full` where there is no room for it, `too-many` */
  async begin(upload: NewUpload): Promise<Upload> {
    await mkdir(this.folder, { recursive: true });
    if ((await readdir(this.folder)).length >= MOST_OPEN)
      throw new Failure('too-many', 'Many uploads were begun and not ended; they are thrown away after a week.');
    const { bavail, bsize } = await statfs(this.folder);
    if (upload.bytes > bavail * bsize)
      throw new Failure('storage-full', 'There is not enough space left in the data folder for this file.');
    const id = randomUUID();
    try {
      await mkdir(this.folderOf(id));
      for (const [name, text] of [
        ['bytes', ''],
        ['meta.json', JSON.stringify(upload)],
      ] as const) {
        // prettier-ignore
        const file = await open(join(this.folderOf(id), name), 'wx');
        try {
          await file.writeFile(text);
          await file.sync();
        } finally {
          await file.close();
        }
      }
      await flush(this.folderOf(id));
      await flush(this.folder);
    } catch (error) {
      await rm(this.folderOf(id), { recursive: true, force: true });
      throw error;
    }
    return { id, offset: 0, bytes: upload.bytes };
  }

  /** @throws Failure `not-found` */
  async state(id: string): Promise<Upload> {
    const { bytes } = await this.meta(id);
    return { id, offset: (await stat(this.pathOf(id))).size, bytes };
  }

  /**
   * Adds a part. When it breaks off, what has arrived of it stays.
   *
   * @param id - upload
   * @param offset - where the part begins: exactly where the last one ended
   * @param part - its bytes
   * @throws Failure `upload-out-of-step` where it begins elsewhere, or another part is on its way; `too-large`
   */
  async add(id: string, offset: number, part: Readable): Promise<Upload> {
    if (this.busy.has(id)) throw new Failure('upload-out-of-step', 'Another part of this file is on its way.');
    this.busy.add(id);
    try {
      const before = await this.state(id);
      if (offset !== before.offset)
        throw new Failure('upload-out-of-step', `${before.offset} bytes are there; the next part begins behind them.`);
      let left = before.bytes - offset;
      const limited = async function* (bytes: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
        for await (const piece of bytes) {
          left -= piece.length;
          if (left < 0) throw new Failure('too-large', 'The file is larger than it was said to be.');
          yield piece;
        }
      };
      try {
        await pipeline(
          part.iterator({ destroyOnReturn: false }),
          limited,
          createWriteStream(this.pathOf(id), { flags: 'r+', start: offset }),
        );
      } finally {
        await flush(this.pathOf(id));
      }
      return await this.state(id);
    } finally {
      this.busy.delete(id);
    }
  }

  /**
   * Makes a clip of it. What is refused stays, so that a part can be kept without sending it again.
   *
   * @throws Failure `upload-incomplete`, and as {@link ClipIngest.ingestFile}
   */
  async finish(id: string, options: { keepPart: boolean; decoded: string | null }): Promise<Clip> {
    const { offset, bytes } = await this.state(id);
    if (offset < bytes) throw new Failure('upload-incomplete', `${offset} of ${bytes} bytes have arrived.`);
    const { name } = await this.meta(id);
    const clip = await this.ingest.ingestFile(this.pathOf(id), name, options);
    await rm(this.folderOf(id), { recursive: true, force: true });
    return clip;
  }

  /** After a start: throws away what nobody went on with. */
  async sweep(): Promise<void> {
    for (const name of await readdir(this.folder).catch(() => [])) {
      const last = await stat(join(this.folder, name, 'bytes')).catch(() => null);
      if (last === null || this.now().getTime() - last.mtimeMs > KEPT_MS)
        await rm(join(this.folder, name), { recursive: true, force: true });
    }
  }

  private async meta(id: string): Promise<NewUpload> {
    const text = await readFile(join(this.folderOf(id), 'meta.json'), 'utf8').catch(() => {
      throw new Failure('not-found', 'There is no such upload; it was finished, or nobody went on with it for a week.');
    });
    return newUploadSchema.parse(JSON.parse(text));
  }

  private folderOf(id: string): string {
    return join(this.folder, id);
  }

  private pathOf(id: string): string {
    return join(this.folderOf(id), 'bytes');
  }
}
