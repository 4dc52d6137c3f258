import { FftPlan } from './fft';
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

const energy = (x: Float64Array): number => x.reduce((s, v) => s + v * v, 0);
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Maximum of the band-limited correlation within one sample of its largest sample, by golden section. */
function fineLag(cross: { re: Float64Array; im: Float64Array }, size: number, around: number, sign: number): number {
  const at = (lag: number): number => {
    const turn = (2 * Math.PI * lag) / size;
    // The rotation goes from bin to bin by multiplication; it is set anew now and then against rounding.
    let sum = cross.re[0] / 2;
    const [stepRe, stepIm] = [Math.cos(turn), Math.sin(turn)];
    let [re, im] = [1, 0];
    for (let k = 1; k < cross.re.length; k++) {
      const next = re * stepRe - im * stepIm;
      im = re * stepIm + im * stepRe;
      re = next;
      if (k % 1024 === 0) {
        re = Math.cos(turn * k);
        im = Math.sin(turn * k);
      }
      sum += cross.re[k] * re - cross.im[k] * im;
    }
    return sign * sum;
  };
  let [low, high] = [around - 1, around + 1];
  let [p, q] = [high - GOLDEN * (high - low), low + GOLDEN * (high - low)];
  let [fp, fq] = [at(p), at(q)];
  for (let i = 0; i < 22; i++) {
    if (fp > fq) {
      [high, q, fq] = [q, p, fp];
      p = high - GOLDEN * (high - low);
      fp = at(p);
    } else {
      [low, p, fp] = [p, q, fq];
      q = low + GOLDEN * (high - low);
      fq = at(q);
    }
  }
  return (low + high) / 2;
}
