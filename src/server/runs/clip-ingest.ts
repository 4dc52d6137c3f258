import { createReadStream } from 'node:fs';
import { basename } from 'node:path';
import type { Readable } from 'node:stream';
import { originalExtension } from '#core/audio/sound-files';
import type { Clip, ClipOrigin } from '#contracts/clip';
import type { InspectClipResult } from '#contracts/worker-messages';
import type { ClipStore, IncomingFile } from '../platform/archive/clip-store';
import { forgetFileCheck } from '../platform/queries/file-check';
import type { Database } from '../platform/db/database';
import { clipOfOrigin, findClip, knownClips, noteClip, noteOrigin } from './queries/clip';
import type { FilesByHash } from '../platform/archive/files-by-hash';
import { Failure } from '../platform/failure';
import { clipName, type SetAside } from '../platform/set-aside';
import type { WorkerPool } from '../platform/worker-pool';

/** A file that has arrived, whose contents were looked at, and that is not yet in the archive. */
export interface InspectedFile {
  readonly name: string;
  readonly incoming: IncomingFile;
  readonly verdict: InspectClipResult;
  /** Of a compressed file: itself, and what it was decoded from. `incoming` holds its samples then. */
  readonly original: { readonly file: IncomingFile; readonly origin: ClipOrigin } | null;
  /** The clip that it was decoded to before; its samples are not decoded again. */
  readonly known: Clip | null;
}

/** How a file is taken in. */
export interface IngestOptions {
  /** Keep what is there of a truncated file. */
  readonly keepPart: boolean;
  /** The clip that the page has decoded this compressed file to, and sent before. */
  readonly decoded?: string | null;
  /** Whoever sent it has gone: looking at it is given up. */
  readonly signal?: AbortSignal;
}

/** How clips come into the archive: received, inspected, kept, noted — in this order, so that nothing half-done shows. */
export class ClipIngest {
  constructor(
    private readonly store: ClipStore,
    private readonly originals: FilesByHash,
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
   * @throws Failure `clip-truncated`, `clip-refused`, `clip-for-page`
   */
  async ingestFile(path: string, name: string, options: IngestOptions): Promise<Clip> {
    const file = await this.looked(() => this.store.measure(path), path, name, options);
    if (!file.verdict.ok) throw refusal(file);
    return this.keep(file);
  }

  /** Keeps a file that Sediment has written itself, so that nobody has to look at it first. */
  async keepOwn(bytes: Readable, name: string, format: Clip['format']): Promise<Clip> {
    const incoming = await this.store.receive(bytes);
    return this.keep({
      name,
      incoming,
      verdict: { ok: true, format, truncatedFrom: null },
      original: null,
      known: null,
    });
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
      return await this.looked(() => Promise.resolve(incoming), incoming.path, name, options);
    } catch (error) {
      await this.store.discard(incoming);
      throw error;
    }
  }

  async discard({ incoming, original }: InspectedFile): Promise<void> {
    await this.store.discard(incoming);
    if (original) await this.store.discard(original.file);
  }

  /** What a file is. A compressed one is decoded, unless it was before. */
  private async looked(
    measure: () => Promise<IncomingFile>,
    path: string,
    name: string,
    options: IngestOptions,
  ): Promise<InspectedFile> {
    const verdict = await this.pool.inspect({ path, keepPart: options.keepPart }, options.signal);
    const file = await measure();
    if (verdict.ok || verdict.code !== 'other-format')
      return { name, incoming: file, verdict, original: null, known: null };
    const named = options.decoded ? await findClip(this.database, options.decoded) : await clipOfOrigin(this.database, file.sha256); // prettier-ignore
    const earlier = named && (await this.store.check(named.sha256)) === null ? named : null;
    const into = this.store.temporaryPath();
    const found = await this.pool.run('decode-clip', { path, into: earlier ? null : into });
    if (found.kind === 'refused' || found.kind === 'page') {
      const code = found.kind === 'page' ? FOR_PAGE : found.code;
      const refused = { ok: false, code, message: found.message, truncation: null } as const;
      return { name, incoming: file, verdict: refused, original: null, known: null };
    }
    const origin = { sha256: file.sha256, bytes: file.bytes, name, ...found.packed };
    const original = { file, origin };
    if (found.kind === 'known') {
      const known = earlier as Clip;
      const unlike = unlikeOriginal(known.format, found);
      return { name, incoming: file, original, known, verdict: unlike ?? { ok: true, format: known.format, truncatedFrom: null } }; // prettier-ignore
    }
    const decoded = await this.store.measure(into);
    return { name, incoming: decoded, original, known: null, verdict: { ok: true, format: found.format, truncatedFrom: null } }; // prettier-ignore
  }

  /** Keeps the compressed file first: a clip whose original is named has it. */
  private async keepOriginal({ file, origin }: NonNullable<InspectedFile['original']>): Promise<ClipOrigin> {
    await this.originals.keepFile(file, originalExtension(origin.name));
    await forgetFileCheck(this.database, 'originals', origin.sha256);
    return origin;
  }

  /** Makes an inspected file part of the archive. Of a clip that is there, the file is read, and replaced if it is not sound. */
  async keep({ name, incoming, verdict, original, known: decoded }: InspectedFile): Promise<Clip> {
    if (!verdict.ok) throw new Error(`${name} was refused and cannot be kept`);
    const origin = original && (await this.keepOriginal(original));
    if (origin && decoded) return (await noteOrigin(this.database, decoded.sha256, origin)) ?? decoded;
    const whole = verdict.truncatedFrom ? await this.salvaged(incoming) : incoming;
    const known = await findClip(this.database, whole.sha256);
    if (known && (await this.store.check(whole.sha256)) === null) {
      await this.store.discard(whole);
      return (origin && (await noteOrigin(this.database, known.sha256, origin))) ?? known;
    }
    if (known) this.setAside.clear('clip', clipName(known.sha256, known.name));
    await this.store.keep(whole, verdict.format.container === 'flac' ? 'flac' : 'wav');
    return noteClip(this.database, {
      sha256: whole.sha256,
      bytes: whole.bytes,
      name,
      format: verdict.format,
      salvaged: verdict.truncatedFrom,
      origin,
      channelOf: null,
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
    await noteClip(this.database, {
      sha256,
      bytes,
      name: sha256.slice(0, 12),
      format: verdict.format,
      salvaged: null,
      origin: null,
      channelOf: null,
    });
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

/** How much longer or shorter decoded sound may be than its file says: what an encoder puts before and behind it. */
const DECODED_WITHIN_S = 0.5;

/** Where a clip cannot be what the page has decoded a compressed file to. */
function unlikeOriginal(
  format: Clip['format'],
  { durationS, channels }: { readonly durationS: number; readonly channels: number },
): InspectClipResult | null {
  if (channels === format.channels && Math.abs(durationS - format.durationS) <= DECODED_WITHIN_S) return null;
  const message = `What was decoded is another sound than that of this file: ${format.durationS.toFixed(2)} s instead of ${durationS.toFixed(2)} s, or other channels.`; // prettier-ignore
  return { ok: false, code: 'not-audio', message, truncation: null };
}

/** Code of a file that only the browser decodes. */
const FOR_PAGE = 'for-page';

function refusal({ name, verdict }: Pick<InspectedFile, 'name' | 'verdict'>): Failure {
  if (verdict.ok) throw new Error('the file was not refused');
  const { code, message, truncation } = verdict;
  return new Failure(
    // A part can be kept of a WAV only: what is there of a FLAC would have to be encoded anew.
    code === 'truncated' && truncation ? 'clip-truncated' : code === FOR_PAGE ? 'clip-for-page' : 'clip-refused',
    message,
    [{ file: name, field: null, message }],
    truncation,
  );
}
