import { AudioFileError } from '../audio/audio-file-error';
import { findSweepShape, sweepRate, type SweepShape } from '../dsp/exponential-sweep';
import { FftPlan } from '../dsp/fft';
import { fftSize, inverseReal, transformPair } from '../dsp/real-transform';

/** What the excitation's power may fall to before the division stops following it, re its largest: −60 dB. */
const REGULARISATION = 1e-6;
/** Peak power of a response re its mean, at least: noise alone reaches about 25. */
const LEAST_CREST = 100;

/** What a recorded sweep turns into. */
export interface ImpulseResponse {
  /** Circular: what arrives before the linear response (harmonics) stands at the end. */
  readonly samples: Float64Array;
  readonly sampleRate: number;
  /** Sample of the largest magnitude: the direct sound. */
  readonly peak: number;
  readonly sweep: SweepShape;
  /** Length of the recording, in seconds: what it does not hold, the response does not hold either. */
  readonly recordedS: number;
}

/**
 * Impulse response from a recorded exponential sweep (Farina 2000). Instead of the time-reversed, tilted sweep the
 * exact inverse conj(X)/(|X|² + ε) of the played one is used: in band it is the same filter, without the ripple of its
 * ends. The transform need only be as long as the sweep: of anything longer the tail is folded back, which a division
 * of spectra takes without error as long as the response itself is shorter.
 *
 * @param played - the sweep as it was played, one channel
 * @param recorded - what came back, one channel, same sample rate
 * @param sampleRate - in hertz
 * @throws AudioFileError `unmeasurable` where `played` is no exponential sweep, or `recorded` no answer to it
 */
export function impulseResponse(played: Float64Array, recorded: Float64Array, sampleRate: number): ImpulseResponse {
  const sweep = findSweepShape(played, sampleRate);
  if (!sweep) throw new AudioFileError('unmeasurable', 'The first file is not an exponential sweep.');
  if (recorded.every((x) => x === 0)) throw new AudioFileError('unmeasurable', 'The recording is digital silence.');
  const fft = new FftPlan(fftSize(played.length + 0.05 * sampleRate));
  const [x, y] = transformPair(fft, played, recorded);
  let largest = 0;
  for (let k = 0; k < x.re.length; k++) largest = Math.max(largest, x.re[k] ** 2 + x.im[k] ** 2);
  const epsilon = REGULARISATION * largest;
  for (let k = 0; k < x.re.length; k++) {
    const scale = 1 / (x.re[k] ** 2 + x.im[k] ** 2 + epsilon);
    const re = (y.re[k] * x.re[k] + y.im[k] * x.im[k]) * scale;
    y.im[k] = (y.im[k] * x.re[k] - y.re[k] * x.im[k]) * scale;
    y.re[k] = re;
  }
  const samples = inverseReal(fft, y).slice();
  let peak = 0;
  for (let i = 1; i < samples.length; i++) if (Math.abs(samples[i]) > Math.abs(samples[peak])) peak = i;
  // Noise spreads over the whole response; an answer to the sweep stands out of it.
  const meanSquare = samples.reduce((s, x) => s + x * x, 0) / samples.length;
  if (samples[peak] ** 2 < LEAST_CREST * meanSquare)
    throw new AudioFileError('unmeasurable', 'The recording holds no answer to the sweep.');
  return { samples, sampleRate, peak, sweep, recordedS: recorded.length / sampleRate };
}

/** Half-width of the fades of {@link gated}, as shares of the parts before and behind the peak. */
const FADE_SHARE = 0.25;

/**
 * Cuts a stretch around a sample out of a circular response, half-cosine fades at both ends.
 *
 * @param response - circular
 * @param centre - sample that the stretch is about
 * @param before - samples before it
 * @param behind - samples behind it
 * @returns before + behind samples; the centre stands at `before`
 */
export function gated(response: Float64Array, centre: number, before: number, behind: number): Float64Array {
  const fadeIn = Math.max(1, FADE_SHARE * before);
  const fadeOut = Math.max(1, FADE_SHARE * behind);
  const part = stretch(response, centre, before, behind);
  for (let i = 0; i < part.length; i++) {
    const edge = Math.min((i + 0.5) / fadeIn, (before + behind - i - 0.5) / fadeOut);
    if (edge < 1) part[i] *= 0.5 - 0.5 * Math.cos(Math.PI * edge);
  }
  return part;
}

/** As {@link gated}, without fades: where the noise at the end of the stretch is to be read. */
export function stretch(response: Float64Array, centre: number, before: number, behind: number): Float64Array {
  const size = response.length;
  const part = new Float64Array(before + behind);
  let from = (((centre - before) % size) + size) % size;
  for (let at = 0; at < part.length; from = 0) {
    const run = response.subarray(from, from + part.length - at);
    part.set(run, at);
    at += run.length;
  }
  return part;
}

/** Samples between the linear response and its second harmonic. */
export const harmonicSpacing = ({ sweep, sampleRate }: ImpulseResponse, order: number): number =>
  Math.round(sweepRate(sweep) * Math.log(order) * sampleRate);
