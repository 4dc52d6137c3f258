import type { BinRange } from './bin-range';
import { FFT_KERNEL } from './fft-kernel';
import { kernelInstance, type KernelExports } from './kernel-instance';

/** Real and imaginary parts of a block. */
export interface ComplexBlock {
  readonly re: Float64Array;
  readonly im: Float64Array;
}

/** kernels/fft.ts. */
interface FftKernel extends KernelExports {
  /** Bytes between arrays. */
  readonly GAP: { readonly value: number };
  /** Lays out memory for a size; returns where it begins. */
  plan(size: number): number;
  /** The same with room for pairs of frames; returns where that begins: first table of a quarter, window, samples. */
  planFrames(size: number): number;
  laterTables(size: number): number;
  /** Where results begin. */
  resultAt(): number;
  forward(): void;
  framePair(scale: number, step: number): void;
  frameSums(isSecond: boolean, ranges: number): void;
}

/** Where a kernel's memory begins. */
const BASE = 1024;

/**
 * Complex forward FFT of one size, planned once and run many times: X[k] = Σ x[n]·e^(−2πi·kn/N), not scaled.
 * Fill `input`, call `forward`, read `output`; the input is used up. The work is done by kernels/fft.ts, compiled to
 * WebAssembly; the tests check it against the definition and against the package fft.js.
 */
export class FftPlan {
  readonly input: ComplexBlock;
  readonly output: ComplexBlock;
  protected readonly kernel: FftKernel;

  /**
   * @param size - a power of two, 16 or more
   * @param layOut - lays out the kernel's memory
   * @throws RangeError for any other size
   */
  constructor(
    readonly size: number,
    layOut: (kernel: FftKernel) => void = (kernel) => kernel.plan(size),
  ) {
    if (size < 16 || !Number.isInteger(Math.log2(size))) throw new RangeError(`FFT size ${size} is not a power of two`);
    this.kernel = kernelInstance(FFT_KERNEL);
    layOut(this.kernel);
    /** An array of the size, the first, the second … of the memory. */
    const pitch = 8 * size + this.kernel.GAP.value;
    const array = (i: number): Float64Array => this.part(BASE + i * pitch, size);
    fillTables(
      this.part(BASE + 4 * pitch, 1.5 * size),
      this.part(BASE + 4 * pitch + 12 * size, this.kernel.laterTables(size)),
      size,
    );
    this.input = { re: array(0), im: array(1) };
    const result = (this.kernel.resultAt() - BASE) / pitch;
    this.output = { re: array(result), im: array(result + 1) };
  }

  /** Transforms what stands in `input` into `output`. */
  forward(): void {
    this.kernel.forward();
  }

  /** @returns a part of the kernel's memory, from a byte on, so many doubles */
  protected part(from: number, length: number): Float64Array {
    return new Float64Array(this.kernel.memory.buffer, from, length);
  }
}

/** Most ranges that {@link FramePairPlan} sums over. */
const MOST_RANGES = 64;

/**
 * Transforms of windowed frames, two at a time, and sums over their powers. Powers are one-sided where the caller's
 * scale makes them so; bin 0 is 0.
 */
export class FramePairPlan extends FftPlan {
  /** The window (size), and the samples of two frames (2 × size). */
  readonly window: Float64Array;
  readonly samples: Float64Array;
  /** Power of the first and of the second frame, by bin (size / 2). */
  readonly powers: readonly [Float64Array, Float64Array];
  /** Sum of the powers of all frames that {@link sumFrame} was called for, by bin. */
  readonly powerSum: Float64Array;
  private readonly weights: Float64Array;
  private readonly rangeTable: Float64Array;
  private readonly sums: Float64Array;
  private ranges = 0;

  /**
   * @param size - samples of a frame, a power of two, 64 or more
   * @throws RangeError for any other size
   */
  constructor(size: number) {
    if (size < 64) throw new RangeError(`Frames of ${size} samples are too short`);
    let from = 0;
    super(size, (kernel) => {
      from = kernel.planFrames(size);
    });
    const quarter = size / 4;
    const later = this.kernel.laterTables(quarter);
    // The tables of a quarter are the last ones of the whole, all but its first.
    fillTables(this.part(from, 1.5 * quarter), this.part(from - 8 * later, later), quarter);
    from += 12 * quarter;
    const next = (length: number): Float64Array => {
      const part = this.part(from, length);
      from += 8 * length + this.kernel.GAP.value;
      return part;
    };
    this.window = next(size);
    this.samples = next(2 * size);
    this.powers = [next(size / 2), next(size / 2)];
    this.weights = next(size / 2);
    this.powerSum = next(size / 2);
    this.rangeTable = this.part(from, 4 * MOST_RANGES);
    this.sums = this.part(from + 32 * MOST_RANGES, MOST_RANGES + 1);
  }

  /**
   * Powers of the two frames in `samples` under the window, which go through one transform together.
   *
   * @param scale - what |X|² is multiplied by
   * @param step - samples from the start of the first frame to that of the second, even, at most the size
   */
  framePair(scale: number, step: number): void {
    this.kernel.framePair(scale, step);
  }

  /**
   * What {@link sumFrame} sums over.
   *
   * @param ranges - ranges of bins, at least one and at most 64
   * @param weights - of the last range, by bin (size / 2)
   */
  planSums(ranges: readonly BinRange[], weights: Float64Array): void {
    this.ranges = ranges.length;
    this.weights.set(weights);
    this.rangeTable.set(
      ranges.flatMap(({ first, last, firstShare, lastShare }) => [first, last, firstShare, lastShare]),
    );
  }

  /**
   * Adds a frame's powers to `powerSum`, and sums them.
   *
   * @param frame - the first or the second of the pair
   * @returns a number per range, and the weighted one of the last; a view that the next call overwrites
   */
  sumFrame(frame: 0 | 1): Float64Array {
    this.kernel.frameSums(frame === 1, this.ranges);
    return this.sums.subarray(0, this.ranges + 1);
  }
}

/** Cosines of the first quarter of the largest size so far: those of a smaller one are among them, to the last bit. */
let cosines = new Float64Array(0);

function quarterOfCosines(size: number): Float64Array {
  if (4 * cosines.length < size) {
    const made = new Float64Array(size / 4);
    for (let i = 0; i < made.length; i++) made[i] = Math.cos((2 * Math.PI * i) / size);
    // A longer one than any clip needs is not kept.
    if (size > LARGEST_KEPT) return made;
    cosines = made;
  }
  return cosines;
}
/** 2 MB of cosines. */
const LARGEST_KEPT = 2 ** 20;

/** Two steps stand together: six numbers of the one between six of the other. */
const placeInFirst = (p: number): number => 12 * (p >> 1) + (p & 1);

/** Cosines and sines of −2πi·rp/N for r = 1, 2, 3, in the order in which the stages read them. */
function fillTables(firstStage: Float64Array, later: Float64Array, size: number): void {
  const quarter = size / 4;
  const known = quarterOfCosines(size);
  const stride = known.length / quarter;
  const cos = new Float64Array(quarter);
  const sin = new Float64Array(quarter);
  // A quarter of the cosines are computed; the rest, and all sines, are the same numbers in another order.
  cos[0] = 1;
  for (let p = 1; p < quarter; p++) {
    cos[p] = known[p * stride];
    sin[p] = -known[(quarter - p) * stride];
  }
  for (let p = 0; p < quarter; p++) {
    for (let r = 1; r <= 3; r++) {
      const turned = r * p >= 2 * quarter ? 2 : r * p >= quarter ? 1 : 0;
      const at = r * p - turned * quarter;
      const to = placeInFirst(p) + 4 * (r - 1);
      firstStage[to] = turned === 0 ? cos[at] : turned === 1 ? sin[at] : -cos[at];
      firstStage[to + 2] = turned === 0 ? sin[at] : turned === 1 ? -cos[at] : -sin[at];
    }
  }
  for (let at = 0, step = 4; at < later.length; step *= 4) {
    for (let p = 0; p < quarter; p += step) {
      for (let i = 0; i < 6; i++) later[at++] = firstStage[placeInFirst(p) + 2 * i];
    }
  }
}
