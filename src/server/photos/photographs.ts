import type { Readable } from 'node:stream';
import { ImageFileError } from '#core/image/image-file-error';
import { plainImage, type PlainImage } from '#core/image/plain-image';
import { LARGEST_PHOTO_BYTES, type NewPhotograph, type Photograph } from '#contracts/photograph';
import { specimenExists } from '../catalogue/queries/specimen';
import type { FilesByHash } from '../platform/archive/files-by-hash';
import type { Database } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import { forgetFileCheck } from '../platform/queries/file-check';
import { addPhotograph, formatOf } from './queries/photograph';

/** Photographs of units: kept by hash, without what the camera wrote beside them. */
export class Photographs {
  constructor(
    private readonly database: Database,
    private readonly store: FilesByHash,
    private readonly hub: EventHub,
  ) {}

  /** @throws Failure `not-found`, `photo-refused` in words */
  async add(specimenId: string, bytes: Readable, about: NewPhotograph): Promise<Photograph> {
    if (!(await specimenExists(this.database, specimenId)))
      throw new Failure('not-found', `There is no unit with the number ${specimenId}.`);
    const image = plain(await whole(bytes));
    const sha256 = await this.store.keep(image.bytes, image.format);
    await forgetFileCheck(this.database, 'photos', sha256);
    const { format, widthPx, heightPx } = image;
    const photo = { ...about, sha256, format, bytes: image.bytes.length, widthPx, heightPx };
    const row = await addPhotograph(this.database, specimenId, photo);
    this.hub.specimenChanged(specimenId);
    return row;
  }

  /** Path and format of a photograph; null where there is none. */
  async find(sha256: string): Promise<{ readonly path: string; readonly format: Photograph['format'] } | null> {
    const format = await formatOf(this.database, sha256);
    const path = format && (await this.store.find(sha256, format));
    return path && format ? { path, format } : null;
  }
}

/** All of a file, up to the largest that is taken. */
async function whole(bytes: Readable): Promise<Uint8Array> {
  const chunks: Buffer[] = [];
  let length = 0;
  for await (const chunk of bytes as AsyncIterable<Buffer>) {
    length += chunk.length;
    if (length > LARGEST_PHOTO_BYTES)
      throw new Failure('photo-refused', `This file is larger than ${LARGEST_PHOTO_BYTES / 1e6} MB.`);
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

function plain(bytes: Uint8Array): PlainImage {
  try {
    return plainImage(bytes);
  } catch (error) {
    if (error instanceof ImageFileError) throw new Failure('photo-refused', error.message);
    throw error;
  }
}
