import type { AudioFormat } from './audio-format';

/** Frames handed over at a time: large enough to hide the call, small enough to stay in cache. */
export const BLOCK_FRAMES = 8_192;

/**
 * A clip as a stream of blocks, so that no reader ever holds a whole file.
 * Samples are doubles with full scale ±1, one array per channel.
 */
export interface SampleStream {
  readonly format: AudioFormat;
  /**
   * Fills the arrays from their start and returns the number of frames written: BLOCK_FRAMES in every block but
   * the last (the meters count on it), 0 at the end.
   * Arrays are the caller's and at least BLOCK_FRAMES long, one per channel.
   */
  read(into: Float64Array[]): number | Promise<number>;
  /**
   * Goes on to a frame without decoding what lies before it, where the file allows it. The next block begins there.
   * Without it, the caller reads and forgets.
   */
  seek?(frame: number): void;
  /** Frees decoders and handles. */
  close(): void;
}

/** One block's worth of arrays, to be reused for every read. */
export function allocateBlock(channels: number): Float64Array[] {
  return Array.from({ length: channels }, () => new Float64Array(BLOCK_FRAMES));
}

/**
 * Reads a stretch of a clip into memory.
 *
 * @param stream - freshly opened; it is left behind the stretch, and not closed
 * @param from - first frame
 * @param to - first frame that is not read; beyond the end means to the end
 * @returns one array per channel, empty where the clip ends before `from`
 */
export async function readStretch(stream: SampleStream, from: number, to: number): Promise<Float64Array[]> {
  const end = Math.min(to, stream.format.frames);
  const block = allocateBlock(stream.format.channels);
  const stretch = block.map(() => new Float64Array(Math.max(0, end - from)));
  let at = 0;
  if (stream.seek && from > 0) {
    stream.seek(from);
    at = from;
  }
  while (at < end) {
    const next = stream.read(block);
    const count = typeof next === 'number' ? next : await next;
    if (count === 0) break;
    const first = Math.max(from, at);
    const last = Math.min(end, at + count);
    if (last > first) {
      block.forEach((samples, c) => stretch[c].set(samples.subarray(first - at, last - at), first - from));
    }
    at += count;
  }
  return stretch;
}
