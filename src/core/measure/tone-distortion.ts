import { powerToDb } from '../units';
import { linePower, noiseBeside, restPower, strongestLine, toneSpectrum, type ToneSpectrum } from './tone-spectrum';

/** Harmonics counted in THD. */
const HIGHEST_HARMONIC = 10;

/** Harmonics that stand less above the noise are told as a limit (common practice, no source). */
const LEAST_ABOVE_NOISE_DB = 3;

/** Whether the noise covers the harmonics: their distortion is then no more than what is told. */
export const isNoiseLimited = ({ thdDb, thdNoiseDb }: Pick<ToneDistortion, 'thdDb' | 'thdNoiseDb'>): boolean =>
  thdDb < thdNoiseDb + LEAST_ABOVE_NOISE_DB;

/** Distortion of a steady tone. */
export interface ToneDistortion {
  readonly hz: number;
  /** Of the tone, AES17 dBFS. */
  readonly levelDbfs: number;
  /** Power of harmonics 2–10 re the fundamental, in dB. */
  readonly thdDb: number;
  /** What noise alone puts where the harmonics are looked for, re the fundamental, in dB. */
  readonly thdNoiseDb: number;
  /** Each harmonic from the second on, re the fundamental, in dB. */
  readonly harmonicsDb: readonly number[];
  /** Everything at 20 Hz–20 kHz but the fundamental, re the whole, in dB (AES17 6.3.1: the notch takes only the tone). */
  readonly thdPlusNoiseDb: number;
}

/**
 * THD and THD+N of a steady tone of about 1 kHz from FFT bins.
 *
 * @param samples - one channel, at least 65,536 samples
 * @param sampleRate - in hertz
 * @throws RangeError for fewer samples
 */
export const toneDistortion = (samples: Float64Array, sampleRate: number): ToneDistortion =>
  distortionIn(toneSpectrum(samples, sampleRate));

/** As {@link toneDistortion}, from a spectrum that is there already. */
export function distortionIn(spectrum: ToneSpectrum): ToneDistortion {
  const hz = strongestLine(spectrum, 20, spectrum.highHz) ?? NaN;
  const fundamental = linePower(spectrum, hz);
  const harmonics: number[] = [];
  let noise = 0;
  for (let n = 2; n <= HIGHEST_HARMONIC && n * hz < spectrum.highHz; n++) {
    harmonics.push(linePower(spectrum, n * hz));
    noise += noiseBeside(spectrum, n * hz);
  }
  const rest = restPower(spectrum, [hz]);
  return {
    hz,
    levelDbfs: powerToDb(2 * fundamental),
    thdDb: powerToDb(harmonics.reduce((s, p) => s + p, 0) / fundamental),
    thdNoiseDb: powerToDb(noise / fundamental),
    harmonicsDb: harmonics.map((p) => powerToDb(p / fundamental)),
    thdPlusNoiseDb: powerToDb(rest / (rest + fundamental)),
  };
}
