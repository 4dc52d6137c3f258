import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { access, mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';

/** A file that has arrived whole but is not yet part of the archive. */
export interface IncomingFile {
  readonly path: string;
  readonly sha256: string;
  readonly bytes: number;
}

/** Extensions that clips are stored under. */
export type ClipExtension = 'wav' | 'flac';

/** Clips as files, named by the SHA-256 of their bytes: the same clip twice is one file. */
export interface ClipStore {
  /** Streams bytes to a temporary file, hashing on the way; memory does not grow with the length. */
  receive(bytes: Readable): Promise<IncomingFile>;
  /** A path for a temporary file of the same kind, for a worker to write to. */
  temporaryPath(): string;
  /** Hashes and counts the bytes of a file that is on disk. */
  measure(path: string): Promise<IncomingFile>;
  /** Makes an incoming file part of the archive: on disk for good, then visible at once under its hash. */
  keep(file: IncomingFile, extension: ClipExtension): Promise<string>;
  discard(file: IncomingFile): Promise<void>;
  /** Path of a stored clip, or null. */
  find(sha256: string): Promise<string | null>;
  /** Removes what an earlier process left half-written; returns how many files. */
  sweep(): Promise<number>;
  /** All stored clips: hash and path. */
  list(): AsyncIterable<{ sha256: string; path: string }>;
}

/**
 * The archive in a folder: incoming/ for what is arriving, clips/ab/abcd….wav for what is kept. A clip becomes
 * visible by a rename inside one file system, after its bytes were flushed: it is there whole or not at all,
 * whenever the process ends.
 */
export async function openClipStore(folder: string): Promise<ClipStore> {
  const incoming = join(folder, 'incoming');
  const clips = join(folder, 'clips');
  await mkdir(incoming, { recursive: true });
  await mkdir(clips, { recursive: true });
  const pathOf = (sha256: string, extension: ClipExtension): string =>
    join(clips, sha256.slice(0, 2), `${sha256}.${extension}`);
  const temporaryPath = (): string => join(incoming, `${randomUUID()}.part`);

  return {
    temporaryPath,

    async receive(bytes) {
      const path = temporaryPath();
      const hashing = new HashingStream();
      try {
        await pipeline(bytes, hashing, createWriteStream(path, { flags: 'wx', flush: true }));
      } catch (error) {
        await rm(path, { force: true });
        throw error;
      }
      return { path, sha256: hashing.digest(), bytes: hashing.bytes };
    },

    async measure(path) {
      const hashing = new HashingStream();
      hashing.resume();
      await pipeline(createReadStream(path), hashing);
      return { path, sha256: hashing.digest(), bytes: hashing.bytes };
    },

    async keep(file, extension) {
      const path = pathOf(file.sha256, extension);
      await mkdir(dirname(path), { recursive: true });
      await flush(file.path);
      await rename(file.path, path);
      await flush(dirname(path));
      return path;
    },

    async discard(file) {
      await rm(file.path, { force: true });
    },

    async find(sha256) {
      for (const extension of ['wav', 'flac'] as const) {
        const path = pathOf(sha256, extension);
        if (await exists(path)) return path;
      }
      return null;
    },

    async sweep() {
      const left = await readdir(incoming);
      await Promise.all(left.map((name) => rm(join(incoming, name), { recursive: true, force: true })));
      return left.length;
    },

    async *list() {
      for (const shelf of await readdir(clips)) {
        for (const name of await readdir(join(clips, shelf))) {
          const match = /^([0-9a-f]{64})\.(wav|flac)$/.exec(name);
          if (match) yield { sha256: match[1], path: join(clips, shelf, name) };
        }
      }
    },
  };
}

/** Passes bytes through, and knows their SHA-256 and number at the end. */
class HashingStream extends Transform {
  bytes = 0;
  private readonly hash = createHash('sha256');

  override _transform(
    chunk: Buffer,
    _encoding: BufferEncoding,
    done: (error: Error | null, data: Buffer) => void,
  ): void {
    this.hash.update(chunk);
    this.bytes += chunk.length;
    done(null, chunk);
  }

  digest(): string {
    return this.hash.digest('hex');
  }
}

async function flush(path: string): Promise<void> {
  const handle = await open(path, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

async function exists(path: string): Promise<boolean> {
  try {
    await access(path);
    return (await stat(path)).isFile();
  } catch {
    return false;
  }
}
