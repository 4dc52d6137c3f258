import { encodeSamples } from '#core/audio/sample-encoder';
import type { Chunk } from './outbox';

/** A chunk leaves at least twice a second: no more than that can be lost. */
const CHUNKS_PER_SECOND = 2;

/** Turns blocks of samples into chunks of 24-bit PCM that know their place. */
export class TakeWriter {
  private held: Float32Array[][] = [];
  private heldFrames = 0;
  private written = 0;

  constructor(
    private readonly recording: string,
    private readonly sampleRate: number,
  ) {}

  /** Frames so far. */
  get frames(): number {
    return this.written + this.heldFrames;
  }

  /** @returns a chunk where enough has come together */
  push(block: Float32Array[]): Chunk | null {
    this.held.push(block);
    this.heldFrames += block[0].length;
    return this.heldFrames * CHUNKS_PER_SECOND >= this.sampleRate ? this.flush() : null;
  }

  /** What is left; null where nothing is. */
  flush(): Chunk | null {
    if (this.heldFrames === 0) return null;
    const channels = this.held[0].map((_, c) => {
      const samples = new Float32Array(this.heldFrames);
      let at = 0;
      for (const block of this.held) {
        samples.set(block[c], at);
        at += block[c].length;
      }
      return samples;
    });
    // 24 bits hold all that a 32-bit float of full scale has, so nothing is rounded that came from a converter.
    const bytes = encodeSamples('pcm24', channels, 0, this.heldFrames);
    const chunk = { recording: this.recording, frame: this.written, bytes };
    this.written += this.heldFrames;
    this.held = [];
    this.heldFrames = 0;
    return chunk;
  }
}
