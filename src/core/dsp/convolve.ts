import { FftPlan } from './fft';
import { fftSize, inverseReal, transformReal } from './real-transform';

/**
 * Linear convolution by overlap-add.
 *
 * @param signal - any length
 * @param impulse - the shorter of the two
 * @param length - samples of the result that are wanted; the signal's length by default
 */
export function convolve(signal: Float64Array, impulse: Float64Array, length = signal.length): Float64Array {
  const fft = new FftPlan(fftSize(2 * Math.max(impulse.length, 4096)));
  const kernel = transformReal(fft, impulse);
  const chunk = fft.size - impulse.length + 1;
  const out = new Float64Array(length);
  for (let from = 0; from < signal.length && from < length; from += chunk) {
    const { re, im } = transformReal(fft, signal.subarray(from, from + chunk));
    for (let k = 0; k <= fft.size / 2; k++) {
      const product = re[k] * kernel.re[k] - im[k] * kernel.im[k];
      im[k] = re[k] * kernel.im[k] + im[k] * kernel.re[k];
      re[k] = product;
    }
    const result = inverseReal(fft, { re, im });
    const end = Math.min(fft.size, length - from);
    for (let i = 0; i < end; i++) out[from + i] += result[i];
  }
  return out;
}
