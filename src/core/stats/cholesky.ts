import { kernelInstance, type KernelExports } from '../dsp/kernel-instance';
import { CHOLESKY_KERNEL } from './cholesky-kernel';

interface CholeskyExports extends KernelExports {
  plan(size: number): number;
  factor(): number;
  invert(): void;
  multiply(): void;
  apply(): void;
}

/** What is wanted of a symmetric positive definite matrix A. */
export interface Factored {
  /** A⁻¹, n × n row by row, symmetric. */
  inverse(): Float64Array;
  /**
   * L⁻ᵀ z for A = L Lᵀ: of covariance A⁻¹ where z is standard normal.
   *
   * @param z - n long; the same array may be filled and given again
   * @param out - n long, filled
   */
  colour(z: ArrayLike<number>, out: Float64Array): void;
}

/**
 * Cholesky factorisation.
 *
 * @param a - n × n, row by row; of the upper triangle nothing is used
 * @param n - rows, at least one
 * @returns null where the matrix is not positive definite
 * @see Golub & Van Loan, Matrix Computations, 4.2
 */
export function factorise(a: Float64Array, n: number): Factored | null {
  const padded = (n + 3) & ~3;
  const kernel = kernelInstance<CholeskyExports>(CHOLESKY_KERNEL);
  const begin = kernel.plan(padded);
  const matrix = new Float64Array(kernel.memory.buffer, begin, padded * padded);
  for (let i = 0; i < padded; i++) {
    const row = matrix.subarray(i * padded, (i + 1) * padded);
    if (i < n) row.set(a.subarray(i * n, i * n + n));
    else row[i] = 1;
  }
  if (kernel.factor() === 0) return null;
  kernel.invert();
  const behind = begin + 3 * padded * padded * 8;
  const input = new Float64Array(kernel.memory.buffer, behind, padded);
  const output = new Float64Array(kernel.memory.buffer, behind + padded * 8, padded);
  return {
    inverse() {
      kernel.multiply();
      const all = new Float64Array(kernel.memory.buffer, begin + 2 * padded * padded * 8, padded * padded);
      const out = new Float64Array(n * n);
      for (let i = 0; i < n; i++) out.set(all.subarray(i * padded, i * padded + n), i * n);
      return out;
    },
    colour(z, out) {
      input.set(z);
      kernel.apply();
      out.set(output.subarray(0, n));
    },
  };
}
