import type { Biquad } from './biquad';
import type { ChannelBlock } from './channel-block';
import { GrowingFloats } from './growing-floats';
import { kWeighting } from './k-weighting';

/** Length of the frames in which power is kept; 20 of them make a gating block of BS.1770. */
export const FRAMES_PER_SECOND = 50;

/**
 * Mean square of one channel in frames of 20 ms, plain and K-weighted, and the sums of the whole clip, in one walk.
 * Frame k covers the samples from round(k·fs/50) on, so that any sample rate stays aligned with time.
 * A last frame that is not full is dropped.
 * The loop over the samples is kernels/k-weighting.ts.
 */
export class FramePowerMeter {
  readonly plain = new GrowingFloats();
  readonly kWeighted = new GrowingFloats();
  /** Sum of all samples so far. */
  sum = 0;
  /** Sum of the squares of all samples so far. */
  sumOfSquares = 0;
  count = 0;
  /** Sum, sum of squares and K-weighted sum of squares of the last stretch. */
  private readonly results: Float64Array;
  private position = 0;
  private frame = 0;
  private frameStart = 0;
  private frameEnd: number;
  private plainSum = 0;
  private weightedSum = 0;

  /**
   * @param sampleRate - in hertz
   * @param block - the block that is pushed
   */
  constructor(
    private readonly sampleRate: number,
    private readonly block: ChannelBlock,
  ) {
    const [shelf, highPass] = kWeighting(sampleRate);
    const { kernel } = block;
    const { b0, b1, b2, a1, a2 } = shelf;
    block.part(kernel.K_COEFFICIENTS, 8).set([b0, b1, b2, a1, a2, highPass.b0, highPass.a1, highPass.a2]);
    const [ofShelf, ofHighPass] = [shelf, highPass].map(twoSamples);
    block.part(kernel.K_PAIRS, 18).set(ofShelf.flatMap((number, i) => [number, ofHighPass[i]]));
    this.results = block.part(kernel.K_RESULTS, 3);
    this.frameEnd = this.boundary(1);
  }

  /** Takes the block as what came before the first frame: the filter settles on it. */
  prime(): void {
    this.block.kernel.accumulate(0, this.block.count);
  }

  /** Takes the block as it stands. */
  push(): void {
    const { count } = this.block;
    let from = 0;
    while (from < count) {
      const to = Math.min(count, from + this.frameEnd - this.position);
      this.accumulate(from, to);
      this.position += to - from;
      from = to;
      if (this.position === this.frameEnd) this.closeFrame();
    }
  }

  private accumulate(from: number, to: number): void {
    this.block.kernel.accumulate(from, to);
    const { results } = this;
    this.sum += results[0];
    this.sumOfSquares += results[1];
    this.count += to - from;
    this.plainSum += results[1];
    this.weightedSum += results[2];
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

/** What kernels/k-weighting.ts needs of a filter to take two samples at a time, in its order. */
function twoSamples({ b0, b1, b2, a1, a2 }: Biquad): number[] {
  const d1 = b1 - a1 * b0;
  const d2 = b2 - a2 * b0;
  return [a1, a2, b0, d1, d2, d2 - a1 * d1, a2 * d1, a1 * a2, a1 * a1 - a2];
}
