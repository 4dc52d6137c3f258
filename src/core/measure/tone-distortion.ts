import { binRange, sumRange } from '../dsp/bin-range';
import { FftPlan } from '../dsp/fft';
import { powerToDb } from '../units';

/** Harmonics counted in THD. */
const HIGHEST_HARMONIC = 10;
/** Bins to either side that the window spreads a sine over. */
const REACH = 7;
const FRAME = 65_536;

/** Distortion of a steady tone. */
export interface ToneDistortion {
  readonly hz: number;
  /** Power of harmonics 2–10 re the fundamental, in dB. */
  readonly thdDb: number;
  /** Everything at 20 Hz–20 kHz but the fundamental, re the whole, in dB (AES17 6.3.1: the notch takes only the tone). */
  readonly thdPlusNoiseDb: number;
}

/**
 * Seven-term Blackman-Harris window, periodic: side lobes below −180 dB, so that harmonics at −140 dB stand free of
 * the tone (Albrecht 2001; coefficients from memory, their side lobes checked in the test).
 */
export function blackmanHarris7(length: number): Float64Array {
  const terms = [
    0.27105140069342, -0.43329793923448, 0.21812299954311, -0.06592544638803, 0.01081174209837, -0.00077658482522,
    0.00001388721735,
  ];
  return Float64Array.from({ length }, (_, i) =>
    terms.reduce((s, a, k) => s + a * Math.cos((2 * Math.PI * k * i) / length), 0),
  );
}

/**
 * THD and THD+N of a steady tone of about 1 kHz from FFT bins.
 *
 * @param samples - one channel, at least 65,536 samples (the middle is used)
 * @param sampleRate - in hertz
 * @throws RangeError for fewer samples
 */
export function toneDistortion(samples: Float64Array, sampleRate: number): ToneDistortion {
  if (samples.length < FRAME) throw new RangeError(`A tone of at least ${FRAME} samples is needed.`);
  const fft = new FftPlan(FRAME);
  const start = Math.floor((samples.length - FRAME) / 2);
  const window = blackmanHarris7(FRAME);
  for (let i = 0; i < FRAME; i++) fft.input.re[i] = window[i] * samples[start + i];
  fft.forward();
  const { re, im } = fft.output;
  const powers = Float64Array.from({ length: FRAME / 2 }, (_, k) => re[k] ** 2 + im[k] ** 2);
  const binHz = sampleRate / FRAME;
  const around = (bin: number): number => {
    let sum = 0;
    for (let k = Math.max(1, bin - REACH); k <= Math.min(powers.length - 1, bin + REACH); k++) sum += powers[k];
    return sum;
  };
  const [low, high] = [Math.ceil(20 / binHz), Math.floor(Math.min(20_000, 0.49 * sampleRate) / binHz)];
  let top = low;
  for (let k = low; k <= high; k++) if (powers[k] > powers[top]) top = k;
  // Centre of gravity of the lobe: exact enough for the tenth harmonic.
  let weight = 0;
  for (let k = top - REACH; k <= top + REACH; k++) weight += k * powers[k];
  const hz = (weight / around(top)) * binHz;
  const whole = sumRange(powers, binRange({ lowHz: 20, highHz: high * binHz }, binHz));
  const fundamental = around(top);
  let harmonics = 0;
  for (let n = 2; n <= HIGHEST_HARMONIC && n * hz < high * binHz; n++)
    harmonics += around(Math.round((n * hz) / binHz));
  return {
    hz,
    thdDb: powerToDb(harmonics / fundamental),
    thdPlusNoiseDb: powerToDb(Math.max(0, whole - fundamental) / whole),
  };
}
