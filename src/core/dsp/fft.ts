import { FFT_KERNEL } from './fft-kernel';
import { kernelInstance, type KernelExports } from './kernel-instance';
import { fillCosines } from './twiddle-factors';

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
  /** Fills the tables of a size from the cosines where the work is done. */
  fill(size: number): void;
  /** Where results begin. */
  resultAt(): number;
  forward(): void;
  framePair(scale: number, step: number): void;
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
  /** Bytes from one array of the size to the next: input (real, imaginary), then work. */
  private readonly pitch: number;

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
    const pitch = (this.pitch = 8 * size + this.kernel.GAP.value);
    const array = (i: number): Float64Array => this.part(BASE + i * pitch, size);
    this.fill(size);
    this.input = { re: array(0), im: array(1) };
    const result = (this.kernel.resultAt() - BASE) / pitch;
    this.output = { re: array(result), im: array(result + 1) };
  }

  /** Transforms what stands in `input` into `output`. */
  forward(): void {
    this.kernel.forward();
  }

  /** Fills the tables, of the size or of a quarter of it. */
  protected fill(size: number): void {
    fillCosines(this.part(BASE + 2 * this.pitch, size / 4), size);
    this.kernel.fill(size);
  }

  /** @returns a part of the kernel's memory, from a byte on, so many doubles */
  protected part(from: number, length: number): Float64Array {
    return new Float64Array(this.kernel.memory.buffer, from, length);
  }
}

/**
 * Transforms of windowed frames, two at a time. Powers are one-sided where the caller's scale makes them so; bin 0 is 0.
 * Long-term spectra, which are most of an analysis, are taken in single precision (hann-frames.ts).
 */
export class FramePairPlan extends FftPlan {
  /** The window (size), and the samples of two frames (2 × size). */
  readonly window: Float64Array;
  readonly samples: Float64Array;
  /** Power of the first and of the second frame, by bin (size / 2). */
  readonly powers: readonly [Float64Array, Float64Array];

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
    this.fill(quarter);
    from += 12 * quarter;
    const next = (length: number): Float64Array => {
      const part = this.part(from, length);
      from += 8 * length + this.kernel.GAP.value;
      return part;
    };
    this.window = next(size);
    this.samples = next(2 * size);
    this.powers = [next(size / 2), next(size / 2)];
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
}
