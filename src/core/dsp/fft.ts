import { FFT_KERNEL } from './fft-kernel';

/** Real and imaginary parts of a block. */
export interface ComplexBlock {
  readonly re: Float64Array;
  readonly im: Float64Array;
}

interface Kernel {
  readonly memory: { readonly buffer: ArrayBuffer };
  /** Lays out memory for a size; returns where it begins. */
  plan(size: number): number;
  /** Returns where the result begins. */
  forward(): number;
}

let compiled: WebAssembly.Module | null = null;

/**
 * Complex forward FFT of one size, planned once and run many times: X[k] = Σ x[n]·e^(−2πi·kn/N), not scaled.
 * Fill `input`, call `forward`, read `output`; the input is used up. The work is done by kernels/fft.ts, compiled to
 * WebAssembly; the tests check it against the definition and against the package fft.js.
 */
export class FftPlan {
  readonly input: ComplexBlock;
  readonly output: ComplexBlock;
  private readonly kernel: Kernel;

  /**
   * @param size - a power of two, 16 or more
   * @throws RangeError for any other size
   */
  constructor(readonly size: number) {
    if (size < 16 || !Number.isInteger(Math.log2(size))) throw new RangeError(`FFT size ${size} is not a power of two`);
    this.kernel = instantiate();
    const base = this.kernel.plan(size);
    const { buffer } = this.kernel.memory;
    const part = (index: number): Float64Array => new Float64Array(buffer, base + index * 8 * size, size);
    fillTables(part(4), part(5), new Float64Array(buffer, base + 6 * 8 * size, (6 * size) / 4), size);
    this.input = { re: part(0), im: part(1) };
    const resultAt = (this.kernel.forward() - base) / (8 * size);
    this.output = { re: part(resultAt), im: part(resultAt + 1) };
  }

  /** Transforms what stands in `input` into `output`. */
  forward(): void {
    this.kernel.forward();
  }
}

function instantiate(): Kernel {
  compiled ??= new WebAssembly.Module(
    Uint8Array.from({ length: FFT_KERNEL.length / 2 }, (_, i) => parseInt(FFT_KERNEL.slice(2 * i, 2 * i + 2), 16)),
  );
  const exports: unknown = new WebAssembly.Instance(compiled).exports;
  return exports as Kernel;
}

/** Cosines and sines of −2πi/N, and those of p, 2p and 3p side by side for the first stage. */
function fillTables(cos: Float64Array, sin: Float64Array, firstStage: Float64Array, size: number): void {
  for (let i = 0; i < size; i++) {
    cos[i] = Math.cos((-2 * Math.PI * i) / size);
    sin[i] = Math.sin((-2 * Math.PI * i) / size);
  }
  const quarter = size / 4;
  for (let p = 0; p < quarter; p++) {
    for (let r = 1; r <= 3; r++) {
      firstStage[2 * (r - 1) * quarter + p] = cos[r * p];
      firstStage[(2 * (r - 1) + 1) * quarter + p] = sin[r * p];
    }
  }
}
