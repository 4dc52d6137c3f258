import { FftPlan } from '../dsp/fft';
import { aWeightingPower } from '../dsp/weighting-curves';

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

/** Bins to either side that the window spreads a sine over. */
const REACH = 7;
/** Samples per frame: bins of less than a hertz, so that side bands 60 Hz from a carrier stand free of it. */
export const TONE_FRAME = 65_536;

/** Power by frequency of a steady signal. Sums of bins are mean squares: a full-scale sine is ½. */
export interface ToneSpectrum {
  readonly powers: Float64Array;
  readonly binHz: number;
  /** Upper limit of what is read, hertz. */
  readonly highHz: number;
}

/**
 * Mean power of overlapping frames (a quarter of a frame apart, seven-term Blackman-Harris), one-sided.
 *
 * @param samples - one channel, at least 65,536 samples
 * @param sampleRate - in hertz
 * @throws RangeError for fewer samples
 */
export function toneSpectrum(samples: Float64Array, sampleRate: number): ToneSpectrum {
  if (samples.length < TONE_FRAME) throw new RangeError(`A tone of at least ${TONE_FRAME} samples is needed.`);
  const fft = new FftPlan(TONE_FRAME);
  const window = blackmanHarris7(TONE_FRAME);
  const scale = 2 / (TONE_FRAME * window.reduce((s, w) => s + w * w, 0));
  const powers = new Float64Array(TONE_FRAME / 2);
  const step = TONE_FRAME / 4;
  const frames = Math.floor((samples.length - TONE_FRAME) / step) + 1;
  // In the middle of the clip, whatever is left over at its ends.
  const start = Math.floor((samples.length - TONE_FRAME - (frames - 1) * step) / 2);
  for (let f = 0; f < frames; f++) {
    const from = start + f * step;
    for (let i = 0; i < TONE_FRAME; i++) fft.input.re[i] = window[i] * samples[from + i];
    fft.input.im.fill(0);
    fft.forward();
    const { re, im } = fft.output;
    for (let k = 0; k < powers.length; k++) powers[k] += ((re[k] ** 2 + im[k] ** 2) * scale) / frames;
  }
  return { powers, binHz: sampleRate / TONE_FRAME, highHz: Math.min(20_000, 0.49 * sampleRate) };
}

/** Mean square of a sine at a frequency: what the window spreads it over. */
export function linePower({ powers, binHz }: ToneSpectrum, hz: number): number {
  const bin = Math.round(hz / binHz);
  let sum = 0;
  for (let k = Math.max(1, bin - REACH); k <= Math.min(powers.length - 1, bin + REACH); k++) sum += powers[k];
  return sum;
}

/** What noise alone would put where a line is looked for: the mean of both sides of it. */
export function noiseBeside(spectrum: ToneSpectrum, hz: number): number {
  const apart = (2 * REACH + 2) * spectrum.binHz;
  return (linePower(spectrum, hz - apart) + linePower(spectrum, hz + apart)) / 2;
}

/**
 * Frequency of the strongest line of a band, by the centre of gravity of its lobe.
 *
 * @returns null where the band holds nothing
 */
export function strongestLine(spectrum: ToneSpectrum, lowHz: number, highHz: number): number | null {
  const { powers, binHz } = spectrum;
  const [low, high] = [Math.max(REACH + 1, Math.ceil(lowHz / binHz)), Math.min(powers.length - REACH - 1, Math.floor(highHz / binHz))]; // prettier-ignore
  let top = low;
  for (let k = low; k <= high; k++) if (powers[k] > powers[top]) top = k;
  let [weight, sum] = [0, 0];
  for (let k = top - REACH; k <= top + REACH; k++) {
    weight += k * powers[k];
    sum += powers[k];
  }
  return sum === 0 ? null : (weight / sum) * binHz;
}

/**
 * Mean square at 20 Hz–20 kHz but for what lies around some lines: the notch takes no more than the tone.
 *
 * @param spectrum - of the take
 * @param without - hertz of the lines that are left out
 * @param weighting - of each frequency
 */
export function restPower(spectrum: ToneSpectrum, without: readonly number[], weighting: 'z' | 'a' = 'z'): number {
  const { powers, binHz, highHz } = spectrum;
  const notches = without.map((hz) => Math.round(hz / binHz));
  let sum = 0;
  for (let k = Math.ceil(20 / binHz); k * binHz <= highHz; k++)
    if (notches.every((bin) => Math.abs(k - bin) > REACH))
      sum += weighting === 'a' ? powers[k] * aWeightingPower(k * binHz) : powers[k];
  return sum;
}
