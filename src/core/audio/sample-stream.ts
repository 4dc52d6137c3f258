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
  /** Frees decoders and handles. */
  close(): void;
}

/** One block's worth of arrays, to be reused for every read. */
export function allocateBlock(channels: number): Float64Array[] {
  return Array.from({ length: channels }, () => new Float64Array(BLOCK_FRAMES));
}
