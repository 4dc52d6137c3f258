import { randomUUID } from 'node:crypto';
import { mkdir, open, readdir, readFile, rm, stat, type FileHandle } from 'node:fs/promises';
import { constants, createReadStream } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { z } from 'zod';
import { wavHeader } from '#core/audio/wav-write';
import type { Clip } from '#contracts/clip';
import { BYTES_PER_CHANNEL, newRecordingSchema, type NewRecording, type Recording } from '#contracts/recording';
import { flush } from '../platform/archive/flush';
import { Failure } from '../platform/failure';
import type { ClipIngest } from './clip-ingest';

const metaSchema = newRecordingSchema.extend({ id: z.string(), startedAt: z.string() });
type Meta = z.infer<typeof metaSchema>;

/** A stretch of frames that has arrived. */
export interface Stretch {
  readonly start: number;
  readonly end: number;
}

/** Longest recording that is taken: a day at 48 kHz. */
const MOST_FRAMES = 24 * 3600 * 48_000;
/** A plain RIFF header; beyond 4 GiB it is a longer one, of RF64. */
const SMALL_HEADER_BYTES = 44;
/** After this time without a chunk, a recording counts as left behind. */
const ACTIVE_MS = 5_000;
/** Recordings whose files stay open; the one that has waited longest is closed for another. */
const MOST_OPEN = 24;

interface OpenRecording {
  readonly meta: Meta;
  readonly file: FileHandle;
  readonly journal: FileHandle;
  stretches: Stretch[];
  lastAt: number;
}

/**
 * Recordings while they are made: recordings/<id>/ holds what is recorded (meta.json), the samples as 24-bit PCM in
 * their place (audio.pcm), and a journal of what has arrived. A chunk and its line in the journal are flushed before it
 * is acknowledged, so a crash on either side, a power cut and a full disk lose at most what was on its way. Chunks may
 * come late, twice, or out of order.
 */
export class Recordings {
  private readonly folder: string;
  private readonly open = new Map<string, Promise<OpenRecording>>();
  private readonly turns = new Map<string, Promise<unknown>>();

  constructor(
    dataFolder: string,
    private readonly ingest: ClipIngest,
    private readonly now: () => Date,
  ) {
    this.folder = join(dataFolder, 'recordings');
  }

  async start(recording: NewRecording): Promise<Recording> {
    const meta: Meta = { ...recording, id: randomUUID(), startedAt: this.now().toISOString() };
    const folder = this.folderOf(meta.id);
    try {
      await mkdir(folder, { recursive: true });
      await writeFlushed(join(folder, 'meta.json'), JSON.stringify(meta));
      const opened = await this.opened(meta.id);
      await flush(folder);
      await flush(this.folder);
      return this.describe(opened);
    } catch (error) {
      await rm(folder, { recursive: true, force: true });
      throw error;
    }
  }

  /**
   * Writes a chunk to its place.
   *
   * @param id - recording
   * @param frame - its first frame
   * @param bytes - whole frames of 24-bit little-endian PCM, channels interleaved
   * @returns frames from the start that are there without a gap
   * @throws Failure `not-found`, `invalid-request`
   */
  async write(id: string, frame: number, bytes: Uint8Array): Promise<number> {
    return this.inTurn(id, async () => {
      const recording = await this.opened(id);
      const frameBytes = recording.meta.channels * BYTES_PER_CHANNEL;
      if (bytes.length === 0 || bytes.length % frameBytes !== 0)
        throw new Failure('invalid-request', `A chunk must hold whole frames of ${frameBytes} bytes.`);
      const end = frame + bytes.length / frameBytes;
      if (end > MOST_FRAMES) throw new Failure('invalid-request', 'A recording cannot be longer than a day.');
      await writeWhole(recording.file, bytes, frame * frameBytes);
      await recording.file.datasync();
      // A line that a full disk has cut off must not run into this one; an empty line means nothing.
      const line = Buffer.from(`\n${frame} ${end}\n`);
      await writeWhole(recording.journal, line, null);
      await recording.journal.datasync();
      recording.stretches = withStretch(recording.stretches, { start: frame, end });
      recording.lastAt = Date.now();
      return contiguous(recording.stretches);
    });
  }

  /** Recordings that did not become clips: running ones, and what a crash has left. */
  async list(): Promise<Recording[]> {
    const found: Recording[] = [];
    for (const name of await this.names()) {
      // What cannot be read was named at the start (recover).
      const recording = await this.inTurn(name, () => this.opened(name)).catch(() => null);
      if (recording) found.push(this.describe(recording));
    }
    return found.sort((a, b) => (a.startedAt < b.startedAt ? -1 : 1));
  }

  /**
   * After a start: takes away recordings of which nothing has arrived, and names what cannot be read.
   *
   * @returns what is wrong, by folder; it stays where it is
   */
  async recover(): Promise<{ name: string; problem: string }[]> {
    const problems: { name: string; problem: string }[] = [];
    for (const name of await this.names()) {
      try {
        if (await this.isDead(name)) await rm(this.folderOf(name), { recursive: true, force: true });
        else await this.opened(name);
      } catch (error) {
        const problem = error instanceof Failure ? error.message : 'Its description (meta.json) cannot be read.';
        problems.push({ name: `recordings/${name}`, problem });
      }
    }
    return problems;
  }

  private async names(): Promise<string[]> {
    const entries = await readdir(this.folder, { withFileTypes: true }).catch(() => []);
    return entries.filter((e) => e.isDirectory()).map((e) => e.name);
  }

  private async isDead(name: string): Promise<boolean> {
    const audio = await stat(join(this.folderOf(name), 'audio.pcm')).catch(() => null);
    return audio === null || audio.size === 0;
  }

  /**
   * Makes a recording a clip.
   *
   * @param id - recording
   * @param frames - its length as the page knows it; null: whatever is there from the start without a gap
   * @param name - name of the clip
   * @throws Failure `recording-incomplete` while a part is missing, `not-found`
   */
  async finish(id: string, frames: number | null, name: string): Promise<{ clip: Clip; meta: NewRecording }> {
    return this.inTurn(id, async () => {
      const recording = await this.opened(id);
      const there = contiguous(recording.stretches);
      if (frames !== null && there < frames) {
        const missing = gapsOf(recording.stretches, frames).map((g) => `frames ${g.start} to ${g.end} are missing`);
        throw new Failure(
          'recording-incomplete',
          `${there} of ${frames} frames have arrived.`,
          missing.map((message) => ({ file: null, field: 'frames', message })),
        );
      }
      const length = frames ?? there;
      const size = (await recording.file.stat()).size;
      if (size < length * recording.meta.channels * BYTES_PER_CHANNEL)
        throw new Failure('recording-incomplete', 'The file of this recording is shorter than what was acknowledged.');
      if (length === 0) throw new Failure('recording-incomplete', 'Nothing of this recording has arrived.');
      const { channels, sampleRateHz } = recording.meta;
      const layout = { encoding: 'pcm24', sampleRate: sampleRateHz, channels, frames: length } as const;
      const path = join(this.folderOf(id), 'audio.pcm');
      const bytes = length * channels * BYTES_PER_CHANNEL;
      const header = wavHeader(layout);
      const clip = await this.ingest.keepOwn(Readable.from(wavBytes(header, path, bytes)), name, {
        container: header.length > SMALL_HEADER_BYTES ? 'rf64' : 'wav',
        encoding: 'pcm24',
        sampleRateHz,
        channels,
        durationS: length / sampleRateHz,
      });
      await this.remove(id, recording);
      return { clip, meta: recording.meta };
    });
  }

  async discard(id: string): Promise<void> {
    await this.inTurn(id, async () => this.remove(id, await this.opened(id)));
  }

  async close(): Promise<void> {
    for (const opened of this.open.values()) {
      const recording = await opened.catch(() => null);
      await recording?.file.close();
      await recording?.journal.close();
    }
    this.open.clear();
  }

  private folderOf(id: string): string {
    return join(this.folder, id);
  }

  private async remove(id: string, recording: OpenRecording): Promise<void> {
    await recording.file.close();
    await recording.journal.close();
    this.open.delete(id);
    await rm(this.folderOf(id), { recursive: true, force: true });
  }

  /** Everything about one recording happens one after another; different ones do not wait for each other. */
  private inTurn<T>(id: string, work: () => Promise<T>): Promise<T> {
    const before = this.turns.get(id) ?? Promise.resolve();
    const turn = before.then(work, work);
    const settled = turn.catch(() => undefined);
    this.turns.set(id, settled);
    void settled.then(() => {
      if (this.turns.get(id) === settled) this.turns.delete(id);
    });
    return turn;
  }

  /** Opens a recording; call it in the recording's turn. Those that have waited longest are closed. */
  private opened(id: string): Promise<OpenRecording> {
    const opened = this.open.get(id) ?? this.reopen(id);
    // The order of the map is that of use.
    this.open.delete(id);
    this.open.set(id, opened);
    opened.catch(() => this.open.delete(id));
    for (const other of this.open.keys()) {
      if (this.open.size <= MOST_OPEN) break;
      if (!this.turns.has(other)) this.closeIdle(other);
    }
    return opened;
  }

  private closeIdle(id: string): void {
    const recording = this.open.get(id);
    this.open.delete(id);
    const closing = recording?.then(async ({ file, journal }) => {
      await file.close();
      await journal.close();
    });
    // Whoever wants it again waits until it is closed.
    void this.inTurn(id, async () => closing).catch(() => undefined);
  }

  private async reopen(id: string): Promise<OpenRecording> {
    const folder = this.folderOf(id);
    const text = await readFile(join(folder, 'meta.json'), 'utf8').catch(() => {
      throw new Failure('not-found', 'There is no such recording; it may have been kept or thrown away already.');
    });
    const meta = metaSchema.parse(JSON.parse(text));
    const journal = await open(join(folder, 'journal'), 'a+');
    const file = await open(join(folder, 'audio.pcm'), constants.O_RDWR | constants.O_CREAT);
    const size = (await stat(join(folder, 'audio.pcm'))).size / (meta.channels * BYTES_PER_CHANNEL);
    const lines = (await readFile(join(folder, 'journal'), 'utf8')).split('\n');
    let stretches: Stretch[] = [];
    for (const line of lines) {
      const match = /^(\d+) (\d+)$/.exec(line);
      // The last line may be half-written; what it spoke of is then sent again or lost.
      if (match && Number(match[2]) <= size) {
        stretches = withStretch(stretches, { start: Number(match[1]), end: Number(match[2]) });
      }
    }
    return { meta, file, journal, stretches, lastAt: 0 };
  }

  private describe({ meta, stretches, lastAt }: OpenRecording): Recording {
    const frames = contiguous(stretches);
    return {
      ...meta,
      frames,
      durationS: frames / meta.sampleRateHz,
      gaps: Math.max(0, stretches.length - (frames > 0 ? 1 : 0)),
      isActive: Date.now() - lastAt < ACTIVE_MS,
    };
  }
}

/** All of it or an error: a full disk takes a part and says so by the number of bytes alone. */
async function writeWhole(file: FileHandle, bytes: Uint8Array, position: number | null): Promise<void> {
  for (let done = 0; done < bytes.length;) {
    const at = position === null ? null : position + done;
    const { bytesWritten } = await file.write(bytes, done, bytes.length - done, at);
    if (bytesWritten === 0) throw Object.assign(new Error('nothing was written'), { code: 'ENOSPC' });
    done += bytesWritten;
  }
}

async function writeFlushed(path: string, text: string): Promise<void> {
  const file = await open(path, 'w');
  try {
    await writeWhole(file, Buffer.from(text), null);
    await file.sync();
  } finally {
    await file.close();
  }
}

async function* wavBytes(header: Uint8Array, path: string, bytes: number): AsyncGenerator<Uint8Array> {
  yield header;
  yield* createReadStream(path, { end: bytes - 1 }) as AsyncIterable<Uint8Array>;
  if (bytes % 2 === 1) yield new Uint8Array(1);
}

/** Adds a stretch, joined with those that it meets; sorted. */
export function withStretch(stretches: readonly Stretch[], { start, end }: Stretch): Stretch[] {
  const apart = stretches.filter((s) => s.end < start || s.start > end);
  const met = stretches.filter((s) => s.end >= start && s.start <= end);
  const joined = {
    start: Math.min(start, ...met.map((s) => s.start)),
    end: Math.max(end, ...met.map((s) => s.end)),
  };
  return [...apart, joined].sort((a, b) => a.start - b.start);
}

/** Frames from the start without a gap. */
export const contiguous = (stretches: readonly Stretch[]): number => (stretches[0]?.start === 0 ? stretches[0].end : 0);

function gapsOf(stretches: readonly Stretch[], frames: number): Stretch[] {
  const gaps: Stretch[] = [];
  let at = 0;
  for (const { start, end } of stretches) {
    if (start > at) gaps.push({ start: at, end: Math.min(start, frames) });
    at = Math.max(at, end);
  }
  if (at < frames) gaps.push({ start: at, end: frames });
  return gaps;
}
