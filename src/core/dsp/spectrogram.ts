import { FramePairPlan } from './fft';
import { hann } from './hann';

/** Rows: logarithmic from the lowest to the highest frequency. */
export const SPECTROGRAM = {
  rows: 96,
  lowHz: 40,
  highHz: 20_000,
  mostColumns: 1024,
  lowestDb: -127.5,
  stepDb: 0.5,
} as const;

/**
 * A picture of a clip for eyes, not for figures: one Hann frame of about 40 ms per column, its peak level per row in
 * steps of half a decibel (byte 0: −127.5 dBFS or less, 255: 0 dBFS). Bounded in size whatever the length of the clip.
 */
export class Spectrogram {
  readonly columns: number;
  /** Column after column, `rows` bytes each. */
  readonly levels: Uint8Array<ArrayBuffer>;
  private readonly fft: FramePairPlan;
  private readonly scale: number;
  private readonly hop: number;
  private readonly edges: Int32Array;
  private readonly buffer: Float64Array;
  private filled = 0;
  private bufferStart = 0;
  private column = 0;

  /**
   * @param sampleRate - in hertz
   * @param frames - length of the clip in samples
   */
  constructor(sampleRate: number, frames: number) {
    const n = 2 ** Math.round(Math.log2(0.04 * sampleRate));
    this.fft = new FramePairPlan(n);
    this.fft.window.set(hann(n));
    // A full-scale sine reads 0 dBFS at its bin.
    this.scale = 8 / this.fft.window.reduce((s, w) => s + w, 0) ** 2 / 2;
    this.hop = Math.max(n / 4, Math.ceil(frames / SPECTROGRAM.mostColumns));
    this.columns = Math.max(1, Math.ceil(frames / this.hop));
    this.levels = new Uint8Array(this.columns * SPECTROGRAM.rows);
    const binHz = sampleRate / n;
    this.edges = Int32Array.from({ length: SPECTROGRAM.rows + 1 }, (_, r) => {
      const hz = SPECTROGRAM.lowHz * (SPECTROGRAM.highHz / SPECTROGRAM.lowHz) ** (r / SPECTROGRAM.rows);
      return Math.min(n / 2 - 1, Math.max(1, Math.round(hz / binHz)));
    });
    this.buffer = new Float64Array(n + 8192);
  }

  /** @param samples - one channel, in order */
  push(samples: Float64Array, count: number): void {
    for (let taken = 0; taken < count;) {
      const part = Math.min(count - taken, this.buffer.length - this.filled);
      this.buffer.set(samples.subarray(taken, taken + part), this.filled);
      this.filled += part;
      taken += part;
      this.draw();
    }
  }

  /** Draws the columns that reach beyond the end, with silence behind it. */
  finish(): void {
    while (this.column < this.columns) {
      this.buffer.fill(0, this.filled);
      this.filled = this.buffer.length;
      this.draw();
    }
  }

  private draw(): void {
    const { fft, buffer, hop } = this;
    const n = fft.size;
    while (this.column < this.columns && this.column * hop + n <= this.bufferStart + this.filled) {
      const at = this.column * hop - this.bufferStart;
      fft.samples.set(buffer.subarray(at, at + n));
      fft.framePair(this.scale, 0);
      this.store(fft.powers[0]);
      this.column++;
    }
    const drop = Math.min(this.filled, Math.max(0, this.column * hop - this.bufferStart));
    buffer.copyWithin(0, drop, this.filled);
    this.bufferStart += drop;
    this.filled -= drop;
  }

  private store(powers: Float64Array): void {
    const { edges, levels } = this;
    for (let r = 0; r < SPECTROGRAM.rows; r++) {
      let most = powers[edges[r]];
      for (let k = edges[r] + 1; k < edges[r + 1]; k++) if (powers[k] > most) most = powers[k];
      const db = 10 * Math.log10(most + 1e-30);
      levels[this.column * SPECTROGRAM.rows + r] = Math.max(
        0,
        Math.min(255, Math.round((db - SPECTROGRAM.lowestDb) / SPECTROGRAM.stepDb)),
      );
    }
  }
}
