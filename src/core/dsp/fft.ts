import { FFT_KERNEL } from './fft-kernel';
import { kernelInstance, type KernelExports } from './kernel-instance';

/** Real and imaginary parts of a block. */
export interface ComplexBlock {
  readonly re: Float64Array;
  readonly im: Float64Array;
}

interface Kernel extends KernelExports {
  /** Lays out memory for a size; returns where it begins. */
  plan(size: number): number;
  /** Where results begin. */
  resultAt(): number;
  forward(): number;
  framePair(scale: number, step: number): void;
}

/**
 * Complex forward FFT of one size, planned once and run many times: X[k] = Σ x[n]·e^(−2πi·kn/N), not scaled.
 * Fill `input`, call `forward`, read `output`; the input is used up. The work is done by kernels/fft.ts, compiled to
 * WebAssembly; the tests check it against the definition and against the package fft.js.
 */
export class FftPlan {
  readonly input: ComplexBlock;
  readonly output: ComplexBlock;
  /** For {@link framePair}: the window (size), and the samples of two frames (2 × size). */
  readonly window: Float64Array;
  readonly samples: Float64Array;
  /** What {@link framePair} gives: power of the first and of the second frame, by bin (size / 2; bin 0 is not filled). */
  readonly powers: readonly [Float64Array, Float64Array];
  private readonly kernel: Kernel;

  /**
   * @param size - a power of two, 16 or more
   * @throws RangeError for any other size
   */
  constructor(readonly size: number) {
    if (size < 16 || !Number.isInteger(Math.log2(size))) throw new RangeError(`FFT size ${size} is not a power of two`);
    this.kernel = kernelInstance(FFT_KERNEL);
    const base = this.kernel.plan(size);
    const { buffer } = this.kernel.memory;
    /** A part of the kernel's memory, in units of the size. */
    const part = (at: number, length = 1): Float64Array =>
      new Float64Array(buffer, base + at * 8 * size, length * size);
    fillTables(part(4), part(5), part(6, 1.5), size);
    this.window = part(7.5);
    this.samples = part(8.5, 2);
    this.powers = [part(10.5, 0.5), part(11, 0.5)];
    this.input = { re: part(0), im: part(1) };
    const resultAt = (this.kernel.resultAt() - base) / (8 * size);
    this.output = { re: part(resultAt), im: part(resultAt + 1) };
  }

  /** Transforms what stands in `input` into `output`. */
  forward(): void {
    this.kernel.forward();
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

/** Cosines and sines of −2πi/N, and those of p, 2p and 3p side by side for the first stage. */
function fillTables(cos: Float64Array, sin: Float64Array, firstStage: Float64Array, size: number): void {
  const quarter = size / 4;
  const known = quarterOfCosines(size);
  const stride = known.length / quarter;
  // A quarter of the cosines are computed; the rest, and all sines, are the same numbers in another order.
  for (let i = 0; i <= quarter; i++) {
    const c = i === quarter ? 0 : known[i * stride];
    cos[i] = c;
    cos[2 * quarter - i] = -c;
    cos[2 * quarter + i] = -c;
    if (i > 0) cos[size - i] = c;
  }
  for (let i = 0; i < size; i++) sin[i] = cos[(i + quarter) & (size - 1)];
  for (let p = 0; p < quarter; p++) {
    for (let r = 1; r <= 3; r++) {
      firstStage[2 * (r - 1) * quarter + p] = cos[r * p];
      firstStage[(2 * (r - 1) + 1) * quarter + p] = sin[r * p];
    }
  }
}
