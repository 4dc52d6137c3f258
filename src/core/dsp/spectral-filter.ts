import { FftPlan } from './fft';
import type { ComplexGain } from './itu468-weighting';
import { fftSize, inverseReal, transformReal } from './real-transform';

/**
 * Filters samples by a gain given over frequency, exactly up to half the sample rate (no bilinear warping), by one
 * FFT of the whole signal with room for the filter's ringing.
 *
 * @param samples - one channel, at most some tens of seconds
 * @param sampleRate - in hertz
 * @param gain - complex gain at a frequency; that of a causal filter whose response dies away within `ringS`
 * @param ringS - seconds that the filter rings
 * @returns as long as the samples
 */
export function spectralFilter(
  samples: Float64Array,
  sampleRate: number,
  gain: (frequency: number) => ComplexGain,
  ringS = 0.1,
): Float64Array {
  const fft = new FftPlan(fftSize(samples.length + ringS * sampleRate));
  const { re, im } = transformReal(fft, samples);
  for (let k = 0; k <= fft.size / 2; k++) {
    const g = gain((k * sampleRate) / fft.size);
    const product = re[k] * g.re - im[k] * g.im;
    im[k] = re[k] * g.im + im[k] * g.re;
    re[k] = product;
  }
  return inverseReal(fft, { re, im }).slice(0, samples.length);
}
