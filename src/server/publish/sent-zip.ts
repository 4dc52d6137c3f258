import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';

/** A file of a pack: how long it is and what its bytes are is known before it is read. */
export interface PackFile {
  readonly path: string;
  readonly bytes: number;
  readonly sha256: string;
  readonly open: () => Readable;
}

/** A pack that can be sent, as often and from wherever it is asked for. */
export interface Pack {
  readonly name: string;
  readonly bytes: number;
  /** Same tag, same bytes. */
  readonly tag: string;
  readonly stream: () => Promise<NodeJS.ReadableStream>;
}

/** A file of a pack from bytes that are there. */
export function bytesFile(path: string, bytes: Uint8Array): PackFile {
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  return { path, bytes: bytes.length, sha256, open: () => Readable.from([bytes]) };
}

export const textFile = (path: string, body: string): PackFile => bytesFile(path, Buffer.from(body, 'utf8'));

export async function hashOfFile(path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer);
  return hash.digest('hex');
}

/**
 * Files as a ZIP that can be sent, with ranges: the same files of the same day have the same bytes each time.
 *
 * @param name - of the ZIP
 * @param files - in their order
 * @param day - that all of them carry
 */
export async function sentZip(name: string, files: readonly PackFile[], day: string): Promise<Pack> {
  const { bytes } = await zipOf(files, day);
  return {
    name,
    bytes,
    tag: createHash('sha256')
      .update(files.map((f) => `${f.sha256} ${f.path}`).join('\n'))
      .digest('hex')
      .slice(0, 32),
    stream: async () => (await zipOf(files, day)).zip.outputStream,
  };
}

/**
 * A ZIP that reads its files as it is read itself, and its length, which is known beforehand since nothing is compressed:
 * sound hardly shrinks.
 */
function zipOf(files: readonly PackFile[], day: string): Promise<{ readonly bytes: number; readonly zip: ZipFile }> {
  const zip = new ZipFile();
  // Of the day, not of now: the same pack has the same bytes each time.
  const mtime = new Date(`${day}T12:00:00Z`);
  for (const { path, bytes, open } of files)
    zip.addReadStreamLazy(path, { mtime, mode: 0o100644, compress: false, size: bytes }, (give) => give(null, open()));
  return new Promise((resolve) => {
    // The types of the package leave out what it is called with.
    const told = ((bytes: number) => resolve({ bytes, zip })) as () => void;
    zip.end({ forceZip64Format: false, comment: '' }, told);
  });
}
