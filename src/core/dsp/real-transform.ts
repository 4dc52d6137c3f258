import type { ComplexBlock, FftPlan } from './fft';

/** Smallest power of two that holds so many samples (16 at least). */
export const fftSize = (samples: number): number => 2 ** Math.max(4, Math.ceil(Math.log2(samples)));

/**
 * Spectrum of a real signal, all bins, as arrays of the caller's own. What is longer than the plan is folded back onto
 * its beginning, as the spectrum of N points of a longer signal demands.
 *
 * @param fft - plan
 * @param samples - one channel
 */
export function transformReal(fft: FftPlan, samples: Float64Array): ComplexBlock {
  const { input, output, size } = fft;
  input.im.fill(0);
  fold(samples, input.re, size);
  fft.forward();
  return { re: output.re.slice(), im: output.im.slice() };
}

/**
 * Spectra of two real signals from one transform, as its real and its imaginary part.
 *
 * @returns bins 0 … size/2 of both
 */
export function transformPair(fft: FftPlan, a: Float64Array, b: Float64Array): readonly [ComplexBlock, ComplexBlock] {
  const { input, output, size } = fft;
  fold(a, input.re, size);
  fold(b, input.im, size);
  fft.forward();
  const { re, im } = output;
  const half = size / 2 + 1;
  const block = (): ComplexBlock => ({ re: new Float64Array(half), im: new Float64Array(half) });
  const [first, second] = [block(), block()];
  for (let k = 0; k < half; k++) {
    const m = k === 0 ? 0 : size - k;
    first.re[k] = (re[k] + re[m]) / 2;
    first.im[k] = (im[k] - im[m]) / 2;
    second.re[k] = (im[k] + im[m]) / 2;
    second.im[k] = (re[m] - re[k]) / 2;
  }
  return [first, second];
}

/**
 * The real signal that a half spectrum (bins 0 … size/2) belongs to.
 *
 * @param fft - plan
 * @param half - the spectrum; its upper half is taken to be the conjugate
 * @returns `size` samples: a view of the plan's memory that its next run overwrites
 */
export function inverseReal(fft: FftPlan, half: ComplexBlock): Float64Array {
  const { input, output, size } = fft;
  // Conjugated before, the forward transform goes back.
  for (let k = 0; k <= size / 2; k++) {
    input.re[k] = half.re[k] / size;
    input.im[k] = -half.im[k] / size;
    if (k > 0 && k < size / 2) {
      input.re[size - k] = half.re[k] / size;
      input.im[size - k] = half.im[k] / size;
    }
  }
  input.im[0] = 0;
  input.im[size / 2] = 0;
  fft.forward();
  return output.re;
}

function fold(samples: Float64Array, into: Float64Array, size: number): void {
  into.fill(0);
  into.set(samples.subarray(0, size));
  for (let i = size; i < samples.length; i++) into[i % size] += samples[i];
}
