import { createReadStream } from 'node:fs';
import { basename } from 'node:path';
import type { Readable } from 'node:stream';
import type { Clip } from '#contracts/clip';
import type { InspectClipResult } from '#contracts/worker-messages';
import type { ClipStore, IncomingFile } from '../platform/archive/clip-store';
import type { Database } from '../platform/db/database';
import { findClip, knownClips, noteClip } from './queries/clip';
import { Failure } from '../platform/failure';
import { clipName, type SetAside } from '../platform/set-aside';
import type { WorkerPool } from '../platform/worker-pool';

/** A file that has arrived, whose contents were looked at, and that is not yet in the archive. */
export interface InspectedFile {
  readonly name: string;
  readonly incoming: IncomingFile;
  readonly verdict: InspectClipResult;
}

/** How a file is taken in. */
export interface IngestOptions {
  /** Keep what is there of a truncated file. */
  readonly keepPart: boolean;
  /** Whoever sent it has gone: looking at it is given up. */
  readonly signal?: AbortSignal;
}

/** How clips come into the archive: received, inspected, kept, noted — in this order, so that nothing half-done shows. */
export class ClipIngest {
  constructor(
    private readonly store: ClipStore,
    private readonly database: Database,
    private readonly pool: WorkerPool,
    private readonly setAside: SetAside,
  ) {}

  /** One upload from beginning to end. */
  async ingest(bytes: Readable, name: string, options: IngestOptions): Promise<Clip> {
    const file = await this.receive(bytes, name, options);
    if (file.verdict.ok) return this.keep(file);
    await this.discard(file);
    throw refusal(file);
  }

  /**
   * A file that lies in the data folder already. Where it is taken in, it is moved; where it is refused, it stays.
   *
   * @throws Failure `clip-truncated`, `clip-refused`
   */
  async ingestFile(path: string, name: string, options: IngestOptions): Promise<Clip> {
    const verdict = await this.pool.inspect({ path, keepPart: options.keepPart }, options.signal);
    if (!verdict.ok) throw refusal({ name, verdict });
    return this.keep({ name, incoming: await this.store.measure(path), verdict });
  }

  /** Keeps a file that Sediment has written itself, so that nobody has to look at it first. */
  async keepOwn(bytes: Readable, name: string, format: Clip['format']): Promise<Clip> {
    const incoming = await this.store.receive(bytes);
    return this.keep({ name, incoming, verdict: { ok: true, format, truncatedFrom: null } });
  }

  /** Whether the file of a clip is there and what it was. */
  async isSound(sha256: string): Promise<boolean> {
    try {
      return (await this.store.verified(sha256)) !== null;
    } catch (error) {
      if (error instanceof Failure && error.code === 'clip-damaged') return false;
      throw error;
    }
  }

  /** Streams a file to disk and looks at it; keeps nothing yet. */
  async receive(bytes: Readable, name: string, options: IngestOptions): Promise<InspectedFile> {
    const incoming = await this.store.receive(bytes);
    try {
      const task = { path: incoming.path, keepPart: options.keepPart };
      return { name, incoming, verdict: await this.pool.inspect(task, options.signal) };
    } catch (error) {
      await this.store.discard(incoming);
      throw error;
    }
  }

  async discard(file: InspectedFile): Promise<void> {
    await this.store.discard(file.incoming);
  }

  /** Makes an inspected file part of the archive. Of a clip that is there, the file is read, and replaced if it is not sound. */
  async keep({ name, incoming, verdict }: InspectedFile): Promise<Clip> {
    if (!verdict.ok) throw new Error(`${name} was refused and cannot be kept`);
    const whole = verdict.truncatedFrom ? await this.salvaged(incoming) : incoming;
    const known = await findClip(this.database, whole.sha256);
    if (known && (await this.store.check(whole.sha256)) === null) {
      await this.store.discard(whole);
      return known;
    }
    if (known) this.setAside.clear('clip', clipName(known.sha256, known.name));
    await this.store.keep(whole, verdict.format.container === 'flac' ? 'flac' : 'wav');
    return noteClip(this.database, {
      sha256: whole.sha256,
      bytes: whole.bytes,
      name,
      format: verdict.format,
      salvaged: verdict.truncatedFrom,
    });
  }

  /**
   * After a start: takes away what an ended process left half-written, and notes clips that were stored whole but
   * whose process ended before the database knew of them. What is not what its name says, or no sound, is named and
   * left where it is.
   */
  async recover(): Promise<{ swept: number; adopted: number }> {
    const swept = await this.store.sweep();
    const known = await knownClips(this.database);
    let adopted = 0;
    for await (const { sha256, path, bytes } of this.store.list()) {
      if (known.has(sha256)) continue;
      const problem = await this.adopt(sha256, path, bytes).catch(() => 'It could not be read.');
      if (problem === null) adopted++;
      else this.setAside.note('file', `clips/${sha256.slice(0, 2)}/${basename(path)}`, problem);
    }
    return { swept, adopted };
  }

  /** @returns why not, or null */
  private async adopt(sha256: string, path: string, bytes: number): Promise<string | null> {
    if ((await this.store.check(sha256)) !== null)
      return 'Its name is not the hash of its bytes, so it is no clip of this archive.';
    const verdict = await this.pool.inspect({ path, keepPart: false });
    if (!verdict.ok) return verdict.message;
    await noteClip(this.database, { sha256, bytes, name: sha256.slice(0, 12), format: verdict.format, salvaged: null });
    return null;
  }

  private async salvaged(incoming: IncomingFile): Promise<IncomingFile> {
    const into = this.store.temporaryPath();
    await this.pool.salvage({ path: incoming.path, into });
    await this.store.discard(incoming);
    return this.store.measure(into);
  }
}

/** A file on disk as the bytes of an upload. */
export const fileBytes = (path: string): Readable => createReadStream(path);

function refusal({ name, verdict }: Pick<InspectedFile, 'name' | 'verdict'>): Failure {
  if (verdict.ok) throw new Error('the file was not refused');
  const { code, message, truncation } = verdict;
  return new Failure(
    // A part can be kept of a WAV only: what is there of a FLAC would have to be encoded anew.
    code === 'truncated' && truncation ? 'clip-truncated' : 'clip-refused',
    message,
    [{ file: name, field: null, message }],
    truncation,
  );
}
