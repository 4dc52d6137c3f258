import type { BinRange } from './bin-range';
import type { ChannelBlock } from './channel-block';
import { hannPower } from './hann';
import { HANN_FRAMES_KERNEL } from './hann-frames-kernel';
import { kernelInstance, type KernelExports } from './kernel-instance';
import { fillCosines } from './twiddle-factors';

/** A place in the kernel's memory, in bytes. */
interface Place {
  readonly value: number;
}

/** kernels/hann-frames.ts. */
interface HannFramesKernel extends KernelExports {
  readonly WINDOW: Place;
  readonly SAMPLES: Place;
  readonly POWERS_A: Place;
  readonly POWERS_B: Place;
  readonly WEIGHTS: Place;
  readonly TOTALS: Place;
  readonly RANGES: Place;
  readonly SUMS: Place;
  plan(size: number, from: number): void;
  fill(size: number): void;
  gather(from: number, count: number, filled: number): void;
  keep(from: number, count: number): void;
  framePair(scale: number, step: number, bins: number): void;
  rangeSums(isSecond: boolean, ranges: number): void;
  addFrame(isSecond: boolean): number;
}

/** Most ranges of bins that are summed. */
const MOST_RANGES = 64;

/** Bytes that frames of a size need behind a block: the parts of kernels/hann-frames.ts. */
export const hannRoom = (size: number): number => 48 * size + 8192;

/** What is made of the frames. */
export interface HannFramesOptions {
  /** Samples of a frame, a power of two, 64 or more. */
  readonly size: number;
  /** Samples from the start of one frame to that of the next: half a frame or a whole one. */
  readonly step: number;
  /** Ranges of bins over which powers are summed: 64 at most, all of them below size / 2. */
  readonly ranges: readonly BinRange[];
  /** Called when two more frames are there, or a last one alone. */
  readonly onFrames: (count: 1 | 2) => void;
}

/**
 * Powers of one channel under periodic Hann windows, frame after frame, in single precision. Powers are mean squares of
 * the signal (full scale ±1): one-sided, window power compensated; bin 0 is 0.
 *
 * Two successive frames go through one complex transform, as its real and its imaginary part. Its rounding leaves noise
 * some 138 dB below the louder of the two, spread over all bins: below half a step of 24 bits at full scale.
 * Sums over bins and frames are kept in doubles.
 */
export class HannFrames {
  /** Frames finished so far. */
  frames = 0;
  /** Samples of the two frames that are being gathered. */
  readonly samples: Float32Array;
  /** Power of the first and of the second frame, by bin: those that the ranges reach, or all. */
  readonly powers: readonly [Float32Array, Float32Array];
  /** Sum of the powers of all frames that {@link addFrame} was called for, by bin (size / 2). */
  readonly powerSum: Float64Array;
  private readonly kernel: HannFramesKernel;
  private readonly sums: Float64Array;
  private readonly weights: Float64Array;
  private readonly scale: number;
  /** How many bins are made. */
  private bins: number;
  private filled = 0;

  /**
   * @param block - the block that is pushed, with {@link hannRoom} for these frames
   * @param options - size, step, and what is made of the frames
   * @throws RangeError for a size that is no power of two, or less than 64, for too many ranges, and for a block without
   * room
   */
  constructor(
    private readonly block: ChannelBlock,
    private readonly options: HannFramesOptions,
  ) {
    const { size, step, ranges } = options;
    if (size < 64 || !Number.isInteger(Math.log2(size)))
      throw new RangeError(`Frames of ${size} samples: a power of two, 64 or more, is needed`);
    if (ranges.length > MOST_RANGES) throw new RangeError(`${ranges.length} ranges: at most ${MOST_RANGES} are summed`);
    const kernel = (this.kernel = kernelInstance(HANN_FRAMES_KERNEL, block.kernel.memory));
    kernel.plan(size, block.take(hannRoom(size)));
    for (const points of [size, size / 4]) {
      fillCosines(this.doubles(kernel.WINDOW, points / 4), points);
      kernel.fill(points);
    }
    const { window, scale } = hannPower(size);
    this.floats(kernel.WINDOW, size).set(window);
    this.scale = scale;
    this.samples = this.floats(kernel.SAMPLES, size + step);
    this.powers = [this.floats(kernel.POWERS_A, size / 2), this.floats(kernel.POWERS_B, size / 2)];
    this.powerSum = this.doubles(kernel.TOTALS, size / 2);
    this.weights = this.doubles(kernel.WEIGHTS, size / 2);
    this.sums = this.doubles(kernel.SUMS, ranges.length);
    this.doubles(kernel.RANGES, 4 * MOST_RANGES).set(
      ranges.flatMap(({ first, last, firstShare, lastShare }) => [first, last, firstShare, lastShare]),
    );
    this.bins = Math.min(size / 2, 16 * Math.ceil((Math.max(0, ...ranges.map((r) => r.last)) + 1) / 16));
  }

  /**
   * Weights of {@link addFrame}; all bins are made from here on.
   *
   * @param weights - by bin (size / 2)
   */
  weigh(weights: ArrayLike<number>): void {
    this.weights.set(weights);
    this.bins = this.options.size / 2;
  }

  /** Forgets all frames: the tables stay, which take longest to fill. */
  restart(): void {
    this.frames = 0;
    this.filled = 0;
    this.powerSum.fill(0);
  }

  /** Takes the block as what came before: as much of it as the next frame reaches back to. */
  prime(): void {
    const { size, step } = this.options;
    const { samples, count } = this.block;
    const reach = size - step;
    const kept = Math.min(this.filled, Math.max(0, reach - count));
    this.kernel.keep(this.filled - kept, kept);
    const taken = Math.min(count, reach);
    this.kernel.gather(samples.byteOffset + 8 * (count - taken), taken, kept);
    this.filled = kept + taken;
  }

  /** Takes the block as it stands. */
  push(): void {
    const { size, step, onFrames } = this.options;
    const { samples, count } = this.block;
    for (let from = 0; from < count;) {
      const fits = Math.min(count - from, this.samples.length - this.filled);
      this.kernel.gather(samples.byteOffset + 8 * from, fits, this.filled);
      this.filled += fits;
      from += fits;
      if (this.filled < this.samples.length) continue;
      this.kernel.framePair(this.scale, step, this.bins);
      this.frames += 2;
      onFrames(2);
      this.filled = size - step;
      this.kernel.keep(2 * step, this.filled);
    }
  }

  /** Takes the last whole frame, if one is waiting; what is left of less than a frame is not used. */
  finish(): void {
    const { size, step, onFrames } = this.options;
    if (this.filled < size) return;
    this.samples.fill(0, size);
    this.kernel.framePair(this.scale, step, this.bins);
    this.frames++;
    onFrames(1);
    this.filled = 0;
  }

  /**
   * @param frame - the first or the second of the pair
   * @returns a sum per range; a view that the next call overwrites
   */
  rangeSums(frame: 0 | 1): Float64Array {
    this.kernel.rangeSums(frame === 1, this.options.ranges.length);
    return this.sums;
  }

  /**
   * Adds a frame's powers to `powerSum`.
   *
   * @param frame - the first or the second of the pair
   * @returns their sum under the weights
   */
  addFrame(frame: 0 | 1): number {
    return this.kernel.addFrame(frame === 1);
  }

  private floats(from: Place, length: number): Float32Array {
    return new Float32Array(this.kernel.memory.buffer, from.value, length);
  }

  private doubles(from: Place, length: number): Float64Array {
    return new Float64Array(this.kernel.memory.buffer, from.value, length);
  }
}
