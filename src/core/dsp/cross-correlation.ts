import { FftPlan, type ComplexBlock } from './fft';
import { fftSize, inverseReal, transformPair } from './real-transform';

/** Where two signals agree best. */
export interface CorrelationPeak {
  /** Samples by which the second signal comes later; a fraction where it was asked for. */
  readonly lag: number;
  /** Correlation coefficient at that lag, −1…1 (its magnitude is largest). */
  readonly coefficient: number;
}

/**
 * Cross-correlation by FFT: the lag at which the second signal matches the first best, turned over or not.
 *
 * @param a - first signal
 * @param b - second signal
 * @param options - settings
 * @param options.range - lags that are allowed, lowest and highest; all by default
 * @param options.isFine - look between samples as well: the band-limited correlation is searched around its peak
 */
export function correlationPeak(
  a: Float64Array,
  b: Float64Array,
  options: { readonly range?: readonly [number, number]; readonly isFine?: boolean } = {},
): CorrelationPeak {
  const [lowest, highest] = options.range ?? [1 - a.length, b.length - 1];
  const fft = new FftPlan(fftSize(a.length + b.length));
  const [x, y] = transformPair(fft, a, b);
  const cross = { re: new Float64Array(x.re.length), im: new Float64Array(x.re.length) };
  for (let k = 0; k < x.re.length; k++) {
    cross.re[k] = x.re[k] * y.re[k] + x.im[k] * y.im[k];
    cross.im[k] = x.re[k] * y.im[k] - x.im[k] * y.re[k];
  }
  const correlation = inverseReal(fft, cross);
  let lag = 0;
  let best = 0;
  for (let l = Math.ceil(lowest); l <= highest; l++) {
    const value = correlation[l < 0 ? fft.size + l : l];
    if (Math.abs(value) > Math.abs(best)) {
      best = value;
      lag = l;
    }
  }
  const norm = Math.sqrt(energy(a) * energy(b));
  if (norm === 0) return { lag: 0, coefficient: 0 };
  if (options.isFine) lag = fineLag(cross, fft.size, lag, Math.sign(best));
  return { lag, coefficient: best / norm };
}

function energy(x: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += x[i] * x[i];
  return sum;
}
/** Steps that end far below what a figure shows, in samples. */
const SMALLEST_STEP = 1e-7;
const MOST_STEPS = 12;

/**
 * Maximum of the band-limited correlation within one sample of its largest sample: where its slope is zero, by Newton's
 * method, which doubles the digits with each step. Where the curve is not that of a peak the interval is halved instead,
 * toward the side that rises.
 */
function fineLag(cross: ComplexBlock, size: number, around: number, sign: number): number {
  let [low, high] = [around - 1, around + 1];
  let lag = around;
  for (let step = 0; step < MOST_STEPS; step++) {
    const { slope, bend } = slopeAt(cross, size, lag, sign);
    if (slope === 0) break;
    if (slope > 0) low = lag;
    else high = lag;
    const next = lag - slope / bend;
    // At the peak itself the step is nothing, and the border is where it stands.
    const isPeak = bend < 0 && next >= low && next <= high;
    const last = lag;
    lag = isPeak ? next : (low + high) / 2;
    if (Math.abs(lag - last) < SMALLEST_STEP) break;
  }
  return lag;
}

/** First and second derivative of the correlation at a lag, of which only signs and their ratio count. */
function slopeAt(cross: ComplexBlock, size: number, lag: number, sign: number): { slope: number; bend: number } {
  const { re: crossRe, im: crossIm } = cross;
  const turn = (2 * Math.PI * lag) / size;
  const [stepRe, stepIm] = [Math.cos(turn), Math.sin(turn)];
  let [re, im] = [1, 0];
  let [slope, bend] = [0, 0];
  // The rotation goes from bin to bin by multiplication; it is set anew now and then against rounding.
  for (let k = 1; k < crossRe.length; k++) {
    const next = re * stepRe - im * stepIm;
    im = re * stepIm + im * stepRe;
    re = next;
    if (k % 1024 === 0) {
      re = Math.cos(turn * k);
      im = Math.sin(turn * k);
    }
    slope -= k * (crossRe[k] * im + crossIm[k] * re);
    bend -= k * k * (crossRe[k] * re - crossIm[k] * im);
  }
  const radians = (2 * Math.PI) / size;
  return { slope: sign * radians * slope, bend: sign * radians * radians * bend };
}
