import { BLOCK_FRAMES } from '../audio/sample-stream';

/** Samples in a stride: short enough that a stride without a peak can be skipped, long enough to be cheap. */
export const STRIDE = 32;

/**
 * Lowest and highest sample of every stride of a block. Found once, and shared by whatever only needs to look
 * closer where something stands out: the level meter, the true-peak meter and the waveform.
 */
export class BlockExtremes {
  readonly lowest = new Float64Array(BLOCK_FRAMES / STRIDE);
  readonly highest = new Float64Array(BLOCK_FRAMES / STRIDE);
  /** Strides of the block; the last one may be short. */
  strides = 0;

  /**
   * @param samples - full scale ±1
   * @param count - how many of them to look at
   */
  scan(samples: Float64Array, count: number): void {
    const { lowest, highest } = this;
    this.strides = Math.ceil(count / STRIDE);
    for (let s = 0; s < this.strides; s++) {
      const end = Math.min(count, (s + 1) * STRIDE);
      let low = samples[s * STRIDE];
      let high = low;
      for (let i = s * STRIDE + 1; i < end; i++) {
        const x = samples[i];
        if (x < low) low = x;
        if (x > high) high = x;
      }
      lowest[s] = low;
      highest[s] = high;
    }
  }
}
