import { GrowingFloats } from './growing-floats';
import { kWeighting } from './k-weighting';
import { K_WEIGHTING_KERNEL } from './k-weighting-kernel';
import { kernelInstance, type KernelExports } from './kernel-instance';

/** Length of the frames in which power is kept; 20 of them make a gating block of BS.1770. */
export const FRAMES_PER_SECOND = 50;

interface Kernel extends KernelExports {
  readonly RESULTS: { readonly value: number };
  readonly SAMPLES: { readonly value: number };
  plan(samples: number): void;
  accumulate(from: number, to: number): void;
}

/** Where the kernel expects the coefficients. */
const COEFFICIENTS_AT = 1024;

/**
 * Mean square of one channel in frames of 20 ms, plain and K-weighted, and the sums of the whole clip, in one walk.
 * Frame k covers the samples from round(k·fs/50) on, so that any sample rate stays aligned with time.
 * A last frame that is not full is dropped.
 * The loop over the samples is kernels/k-weighting.ts, compiled to WebAssembly.
 */
export class FramePowerMeter {
  readonly plain = new GrowingFloats();
  readonly kWeighted = new GrowingFloats();
  /** Sum of all samples so far. */
  sum = 0;
  /** Sum of the squares of all samples so far. */
  sumOfSquares = 0;
  count = 0;
  private readonly kernel: Kernel = kernelInstance(K_WEIGHTING_KERNEL);
  private readonly block: Float64Array;
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
   * @param blockFrames - the longest block that will be pushed
   */
  constructor(
    private readonly sampleRate: number,
    blockFrames: number,
  ) {
    const [shelf, highPass] = kWeighting(sampleRate);
    this.kernel.plan(blockFrames);
    const { memory, RESULTS, SAMPLES } = this.kernel;
    const { b0, b1, b2, a1, a2 } = shelf;
    new Float64Array(memory.buffer, COEFFICIENTS_AT, 8).set([
      b0,
      b1,
      b2,
      a1,
      a2,
      highPass.b0,
      highPass.a1,
      highPass.a2,
    ]);
    this.results = new Float64Array(memory.buffer, RESULTS.value, 3);
    this.block = new Float64Array(memory.buffer, SAMPLES.value, blockFrames);
    this.frameEnd = this.boundary(1);
  }

  /**
   * @param samples - full scale ±1
   * @param count - how many of them to take, at most `blockFrames`
   */
  push(samples: Float64Array, count: number): void {
    this.block.set(count === samples.length ? samples : samples.subarray(0, count));
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
    this.kernel.accumulate(from, to);
    const [sum, plain, weighted] = this.results;
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
