import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream, type Stats } from 'node:fs';
import { access, mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join, relative } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Failure } from '../failure';
import { flush } from './flush';

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
  /** Deletes a stored clip for good; one that is not there is gone already. */
  remove(sha256: string): Promise<void>;
  /** Path of a stored clip, or null; nothing is said of its bytes. */
  find(sha256: string): Promise<string | null>;
  /**
   * Path of a stored clip whose bytes are what its name says: they were read once since the file last changed. Null
   * where there is none.
   *
   * @throws Failure `clip-damaged`
   */
  verified(sha256: string): Promise<string | null>;
  /** Reads the bytes again, whatever was read before. @returns what is wrong, or null */
  check(sha256: string): Promise<'missing' | 'damaged' | null>;
  /** Removes what an earlier process left half-written; returns how many files. */
  sweep(): Promise<number>;
  /** All stored clips: hash, path and size. */
  list(): AsyncIterable<StoredClip>;
  /** Files among the clips that are none, by their path in the archive; they are passed over. */
  strays(): Promise<string[]>;
}

export interface StoredClip {
  readonly sha256: string;
  readonly path: string;
  readonly bytes: number;
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

  /** What was read since the file last changed, by hash: size and time of the file then. */
  const read = new Map<string, string>();
  const reading = new Map<string, Promise<boolean>>();
  const find = async (sha256: string): Promise<string | null> => {
    for (const extension of ['wav', 'flac'] as const) {
      const path = pathOf(sha256, extension);
      if (await exists(path)) return path;
    }
    return null;
  };
  const isSound = async (sha256: string, path: string): Promise<boolean> => {
    const mark = markOf(await stat(path));
    if (read.get(sha256) === mark) return true;
    if ((await hashOf(path)).sha256 !== sha256) return false;
    read.set(sha256, mark);
    return true;
  };
  /** One reading for all who ask at once. */
  const isSoundOnce = (sha256: string, path: string): Promise<boolean> => {
    const running = reading.get(sha256) ?? isSound(sha256, path).finally(() => reading.delete(sha256));
    reading.set(sha256, running);
    return running;
  };

  return {
    temporaryPath,
    find,

    async verified(sha256) {
      const path = await find(sha256);
      if (path && !(await isSoundOnce(sha256, path)))
        throw new Failure('clip-damaged', 'The file of this clip is not what was stored: its bytes have changed.');
      return path;
    },

    async check(sha256) {
      read.delete(sha256);
      const path = await find(sha256);
      if (!path) return 'missing';
      return (await isSoundOnce(sha256, path)) ? null : 'damaged';
    },

    async receive(bytes) {
      const path = temporaryPath();
      const hashing = new HashingStream();
      try {
        // A failure of ours leaves the stream open, so that the other side can still be told.
        await pipeline(
          bytes.iterator({ destroyOnReturn: false }),
          hashing,
          createWriteStream(path, { flags: 'wx', flush: true }),
        );
      } catch (error) {
        await rm(path, { force: true });
        throw error;
      }
      return { path, sha256: hashing.digest(), bytes: hashing.bytes };
    },

    measure: hashOf,

    async keep(file, extension) {
      const path = pathOf(file.sha256, extension);
      await mkdir(dirname(path), { recursive: true });
      await flush(file.path);
      await rename(file.path, path);
      await flush(dirname(path));
      await flush(clips);
      // Its bytes were hashed on their way in.
      read.set(file.sha256, markOf(await stat(path)));
      return path;
    },

    async discard(file) {
      await rm(file.path, { force: true });
    },

    async remove(sha256) {
      read.delete(sha256);
      for (const extension of ['wav', 'flac'] as const) {
        const path = pathOf(sha256, extension);
        if (!(await exists(path))) continue;
        await rm(path);
        await flush(dirname(path));
      }
    },

    async sweep() {
      const left = await readdir(incoming);
      await Promise.all(left.map((name) => rm(join(incoming, name), { recursive: true, force: true })));
      return left.length;
    },

    async *list() {
      for await (const { path, sha256 } of entries(clips)) {
        if (sha256 !== null) yield { sha256, path, bytes: (await stat(path)).size };
      }
    },

    async strays() {
      const found: string[] = [];
      for await (const { path, sha256 } of entries(clips)) if (sha256 === null) found.push(relative(folder, path));
      return found;
    },
  };
}

/** Everything that lies among the clips; what is no clip (a file manager's own files, for instance) has no hash. */
async function* entries(clips: string): AsyncGenerator<{ path: string; sha256: string | null }> {
  for (const shelf of await readdir(clips, { withFileTypes: true })) {
    const shelfPath = join(clips, shelf.name);
    if (!shelf.isDirectory() || !/^[0-9a-f]{2}$/.test(shelf.name)) {
      yield { path: shelfPath, sha256: null };
      continue;
    }
    for (const entry of await readdir(shelfPath, { withFileTypes: true })) {
      const match = entry.isFile() ? /^([0-9a-f]{64})\.(wav|flac)$/.exec(entry.name) : null;
      yield { path: join(shelfPath, entry.name), sha256: match?.[1].startsWith(shelf.name) ? match[1] : null };
    }
  }
}

const markOf = ({ size, mtimeMs }: Stats): string => `${size}/${mtimeMs}`;

async function hashOf(path: string): Promise<IncomingFile> {
  const hashing = new HashingStream();
  hashing.resume();
  await pipeline(createReadStream(path), hashing);
  return { path, sha256: hashing.digest(), bytes: hashing.bytes };
}

/** A folder for files that are on their way out or in; what a killed process leaves of it is swept at the next start. */
export async function temporaryFolder(store: ClipStore): Promise<string> {
  const path = store.temporaryPath();
  await mkdir(path);
  return path;
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

async function exists(path: string): Promise<boolean> {
  try {
    await access(path);
    return (await stat(path)).isFile();
  } catch {
    return false;
  }
}
