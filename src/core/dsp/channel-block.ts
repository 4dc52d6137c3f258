import { BLOCK_FRAMES } from '../audio/sample-stream';
import { CHANNEL_BLOCK_KERNEL } from './channel-block-kernel';
import { kernelInstance, type KernelExports } from './kernel-instance';

/** Samples in a stride: short enough that a stride without a peak can be skipped, long enough to be cheap. */
export const STRIDE = 32;

/** Zeros that the interpolator of true peaks rings out in. */
const BEHIND = 13;

/** A place in the kernel's memory, in bytes. */
interface Place {
  readonly value: number;
}

/** kernels/channel-block.ts. */
interface ChannelBlockKernel extends KernelExports {
  readonly K_COEFFICIENTS: Place;
  readonly K_PAIRS: Place;
  readonly K_RESULTS: Place;
  readonly PHASES: Place;
  readonly SLOTS: Place;
  readonly LOWEST: Place;
  readonly HIGHEST: Place;
  readonly BLOCK_EXTREMES: Place;
  readonly LOW_SECTIONS: Place;
  readonly LOW_BAND: Place;
  readonly CANDIDATES: Place;
  /** Where the block ends, and what was reserved behind it begins. */
  readonly END: Place;
  plan(slots: number, room: number): void;
  forget(): void;
  next(count: number): number;
  extremes(count: number): void;
  accumulate(from: number, to: number): void;
  largestOfBlock(count: number, start: number, before: number, inner: number, outer: number): number;
  ringOut(count: number, start: number): number;
  enterGroup(before: number): void;
  lowBand(count: number, divisor: number): number;
  largestLow(from: number, to: number): number;
  repeats(strides: number, start: number, reach: number, longest: number): number;
}

/**
 * One block of one channel, in the memory of the kernel that the meters of the channel share: samples are written once
 * and read by all of them. Lowest and highest sample of every stride are found once as well, for whatever only needs to
 * look closer where something stands out.
 *
 * Call `next`, fill `samples`, call `scan`, then push the block to the meters. A channel has one block, used again and
 * again; each of the meters that keep a state in the kernel (K-weighting, true peak, low band, repeats) may exist once
 * per block, until it is told to `restart`.
 */
export class ChannelBlock {
  readonly kernel: ChannelBlockKernel = kernelInstance(CHANNEL_BLOCK_KERNEL);
  /** BLOCK_FRAMES samples, full scale ±1; their past stands in {@link ring}. */
  samples: Float64Array<ArrayBuffer>;
  /** The blocks up to this one, each in its slot: full ones, or the last. Sample i of the clip stands at i % length. */
  readonly ring: Float64Array<ArrayBuffer>;
  readonly lowest: Float64Array;
  readonly highest: Float64Array;
  /** How many of the samples count, and in how many strides; the last one may be short. */
  count = 0;
  strides = 0;
  /** Lowest and highest sample of the whole block, and strides that hold one and the same value. */
  private readonly extremes: Float64Array;
  /** Where what nobody has taken yet begins. */
  private free: number;
  private readonly slots: readonly Float64Array<ArrayBuffer>[];

  /**
   * @param room - bytes behind the block, for kernels that work beside it
   * @param past - samples from before a block that somebody asks for later
   */
  constructor(
    private readonly room = 0,
    past = 0,
  ) {
    // What the interpolator writes behind the block is the oldest of the past.
    const slots = past === 0 ? 1 : 1 + Math.ceil((past + BEHIND) / BLOCK_FRAMES);
    this.kernel.plan(slots, room);
    this.free = this.kernel.END.value;
    this.ring = this.part(this.kernel.SLOTS, slots * BLOCK_FRAMES);
    this.slots = Array.from({ length: slots }, (_, i) => this.ring.subarray(i * BLOCK_FRAMES, (i + 1) * BLOCK_FRAMES));
    this.samples = this.slots[slots - 1];
    this.lowest = this.part(this.kernel.LOWEST, BLOCK_FRAMES / STRIDE);
    this.highest = this.part(this.kernel.HIGHEST, BLOCK_FRAMES / STRIDE);
    this.extremes = this.part(this.kernel.BLOCK_EXTREMES, 3);
  }

  /** Lowest sample of the block. */
  get bottom(): number {
    return this.extremes[0];
  }

  /** Highest sample of the block. */
  get top(): number {
    return this.extremes[1];
  }

  /** Strides that hold one and the same value. */
  get flatStrides(): number {
    return this.extremes[2];
  }

  /**
   * A part of the kernel's memory.
   *
   * @param from - where it begins
   * @param length - in doubles
   */
  part(from: Place, length: number): Float64Array<ArrayBuffer> {
    return new Float64Array(this.kernel.memory.buffer, from.value, length);
  }

  /**
   * Takes a piece of the room behind the block.
   *
   * @param bytes - as many as it needs
   * @returns where it begins, in bytes
   * @throws RangeError where the block was made with less room
   */
  take(bytes: number): number {
    const from = this.free;
    this.free += 64 * Math.ceil(bytes / 64);
    if (this.free > this.kernel.END.value + this.room) throw new RangeError(`The block has no room for ${bytes} bytes`);
    return from;
  }

  /**
   * The block as it stands becomes the past.
   *
   * @returns where the next samples are to be filled in: `samples` from here on
   */
  next(): Float64Array<ArrayBuffer> {
    this.samples = this.slots[this.kernel.next(this.count)];
    this.count = 0;
    return this.samples;
  }

  /**
   * Forgets all that went through it, and the meters that keep a state in the kernel: others may be made over it. What
   * was taken behind it is left to those who took it.
   */
  restart(): void {
    this.kernel.forget();
    this.samples = this.slots[this.slots.length - 1];
    this.count = 0;
    this.strides = 0;
  }

  /** @param count - how many samples were filled in, at most BLOCK_FRAMES */
  scan(count: number): void {
    this.count = count;
    this.strides = Math.ceil(count / STRIDE);
    this.kernel.extremes(count);
  }
}
