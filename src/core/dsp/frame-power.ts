import type { Biquad } from './biquad';
import { kWeighting } from './k-weighting';
import { GrowingFloats } from './growing-floats';

/** Length of the frames in which power is kept; 20 of them make a gating block of BS.1770. */
export const FRAMES_PER_SECOND = 50;

/**
 * Mean square of one channel in frames of 20 ms, plain and K-weighted, and the sums of the whole clip, in one walk.
 * Frame k covers the samples from round(k·fs/50) on, so that any sample rate stays aligned with time.
 * A last frame that is not full is dropped.
 */
export class FramePowerMeter {
  readonly plain = new GrowingFloats();
  readonly kWeighted = new GrowingFloats();
  /** Sum of all samples so far. */
  sum = 0;
  /** Sum of the squares of all samples so far. */
  sumOfSquares = 0;
  count = 0;
  private readonly shelf: Biquad;
  private readonly highPass: Biquad;
  private readonly state = new Float64Array(4);
  private position = 0;
  private frame = 0;
  private frameStart = 0;
  private frameEnd: number;
  private plainSum = 0;
  private weightedSum = 0;

  constructor(private readonly sampleRate: number) {
    [this.shelf, this.highPass] = kWeighting(sampleRate);
    this.frameEnd = this.boundary(1);
  }

  /**
   * @param samples - full scale ±1
   * @param count - how many of them to take
   */
  push(samples: Float64Array, count: number): void {
    let from = 0;
    while (from < count) {
      const to = Math.min(count, from + this.frameEnd - this.position);
      this.accumulate(samples, from, to);
      this.position += to - from;
      from = to;
      if (this.position === this.frameEnd) this.closeFrame();
    }
  }

  // Both sections are written out in one loop: their memory stays in registers, which halves the time.
  private accumulate(samples: Float64Array, from: number, to: number): void {
    const { b0, b1, b2, a1, a2 } = this.shelf;
    // The numerator of the high-pass is d, −2d, d.
    const { b0: d, a1: c1, a2: c2 } = this.highPass;
    const state = this.state;
    let z1 = state[0];
    let z2 = state[1];
    let w1 = state[2];
    let w2 = state[3];
    let sum = 0;
    let plain = 0;
    let weighted = 0;
    for (let i = from; i < to; i++) {
      const x = samples[i];
      sum += x;
      plain += x * x;
      const y = b0 * x + z1;
      z1 = b1 * x - a1 * y + z2;
      z2 = b2 * x - a2 * y;
      const u = d * y;
      const v = u + w1;
      w1 = w2 - 2 * u - c1 * v;
      w2 = u - c2 * v;
      weighted += v * v;
    }
    state[0] = z1;
    state[1] = z2;
    state[2] = w1;
    state[3] = w2;
    this.sum += sum;
    this.sumOfSquares += plain;
    this.count += to - from;
    this.plainSum += plain;
    this.weightedSum += weighted;
  }

  private closeFrame(): void {
    const length = this.frameEnd - this.frameStart;
    this.plain.push(this.plainSum / length);
    this.kWeighted.push(this.weightedSum / length);
    this.plainSum = 0;
    this.weightedSum = 0;
    this.frame++;
    this.frameStart = this.frameEnd;
    this.frameEnd = this.boundary(this.frame + 1);
  }

  private boundary(frame: number): number {
    return Math.round((frame * this.sampleRate) / FRAMES_PER_SECOND);
  }
}
