import type { ComplexBlock } from './fft';
import type { ComplexGain } from './itu468-weighting';
import { fftSize, inverseReal, transformReal } from './real-transform';
import { sharedFftPlan } from './shared-plan';

/** Complex gain at a frequency in hertz, that of a filter of real samples. */
type Gain = (frequency: number) => ComplexGain;

/** Samples that are filtered by one transform; more go through it in blocks, which stay in the processor's caches. */
const BLOCK_SIZE = 2 ** 16;
/** Of a plan that is shared. */
const SMALLEST = 64;

/**
 * Filters samples by a gain given over frequency, exactly up to half the sample rate (no bilinear warping).
 *
 * @param samples - one channel
 * @param sampleRate - in hertz
 * @param gain - of a filter whose response dies away within `ringS`, before and behind its impulse
 * @param ringS - seconds that the filter rings
 * @returns as long as the samples
 */
export function spectralFilter(samples: Float64Array, sampleRate: number, gain: Gain, ringS = 0.1): Float64Array {
  const ring = Math.ceil(ringS * sampleRate);
  return samples.length + ring <= BLOCK_SIZE
    ? atOnce(samples, sampleRate, gain, ring)
    : inBlocks(samples, sampleRate, gain, ring);
}

function atOnce(samples: Float64Array, sampleRate: number, gain: Gain, ring: number): Float64Array {
  const fft = sharedFftPlan(fftSize(Math.max(SMALLEST, samples.length + ring)));
  const { re, im } = transformReal(fft, samples);
  for (let k = 0; k <= fft.size / 2; k++) {
    const g = gain((k * sampleRate) / fft.size);
    const product = re[k] * g.re - im[k] * g.im;
    im[k] = re[k] * g.im + im[k] * g.re;
    re[k] = product;
  }
  return inverseReal(fft, { re, im }).slice(0, samples.length);
}

/** Overlap-add, two blocks at a time: filters of real samples leave what is real real, and what is imaginary imaginary. */
function inBlocks(samples: Float64Array, sampleRate: number, gain: Gain, ring: number): Float64Array {
  const fft = sharedFftPlan(fftSize(Math.max(BLOCK_SIZE, 8 * ring)));
  const { size, input, output } = fft;
  const length = size - 2 * ring;
  const gains = gainOfBins(size, sampleRate, gain);
  const out = new Float64Array(samples.length);
  for (let from = 0; from < samples.length; from += 2 * length) {
    [input.re, input.im].forEach((into, i) => {
      const part = samples.subarray(from + i * length, from + (i + 1) * length);
      into.set(part);
      into.fill(0, part.length);
    });
    fft.forward();
    weigh(output, gains, input);
    fft.forward();
    add(out, from, output.re, ring, 1);
    add(out, from + length, output.im, ring, -1);
  }
  return out;
}

/**
 * Spectrum times gain, conjugated: then the forward transform goes back, to the conjugate of the result. Output and input
 * of a plan may be the same memory.
 */
function weigh(spectrum: ComplexBlock, gains: ComplexBlock, into: ComplexBlock): void {
  const { re: x, im: y } = spectrum;
  const { re: a, im: b } = gains;
  const { re, im } = into;
  // A power of two: times its inverse is the same to the last bit.
  const scale = 1 / x.length;
  for (let k = 0; k < x.length; k++) {
    const real = x[k];
    const imaginary = y[k];
    re[k] = (real * a[k] - imaginary * b[k]) * scale;
    im[k] = -(real * b[k] + imaginary * a[k]) * scale;
  }
}

/** Those of the last size and rate that a gain was asked for: a run's takes mostly have one rate. */
const lastGains = new WeakMap<
  Gain,
  { readonly size: number; readonly sampleRate: number; readonly of: ComplexBlock }
>();

/** Gains of all bins of a transform, the upper half conjugates of the lower one. */
function gainOfBins(size: number, sampleRate: number, gain: Gain): ComplexBlock {
  const last = lastGains.get(gain);
  if (last?.size === size && last.sampleRate === sampleRate) return last.of;
  const [re, im] = [new Float64Array(size), new Float64Array(size)];
  for (let k = 0; k <= size / 2; k++) {
    const g = gain((k * sampleRate) / size);
    const isReal = k === 0 || k === size / 2;
    re[k] = g.re;
    im[k] = isReal ? 0 : g.im;
    if (isReal) continue;
    re[size - k] = g.re;
    im[size - k] = -g.im;
  }
  const of = { re, im };
  lastGains.set(gain, { size, sampleRate, of });
  return of;
}

/** Adds a filtered block; its last `ring` samples are those before its beginning. */
function add(out: Float64Array, from: number, block: Float64Array, ring: number, sign: 1 | -1): void {
  const end = Math.min(block.length - ring, out.length - from);
  const behind = block.length;
  for (let i = Math.max(-ring, -from); i < Math.min(0, end); i++) out[from + i] += sign * block[behind + i];
  for (let i = 0; i < end; i++) out[from + i] += sign * block[i];
}
