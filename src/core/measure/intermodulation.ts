import { amplitudeToDb } from '../units';
import { linePower, strongestLine, type ToneSpectrum } from './tone-spectrum';

/** Distortion of two tones at once. */
export interface Intermodulation {
  /** Frequencies that were found, the lower first. */
  readonly hz: readonly [number, number];
  /** Amplitude of the lower re the higher, dB. */
  readonly balanceDb: number;
  /** Products re their reference, dB. */
  readonly db: number;
}

/** Orders of side bands that are counted. */
const SIDE_BANDS = [1, 2, 3] as const;

const amplitudeOf =
  (spectrum: ToneSpectrum) =>
  (hz: number): number =>
    Math.sqrt(2 * linePower(spectrum, hz));

/**
 * Modulation distortion: a high tone (7 kHz) beside a low one (60 Hz) four times as strong. Of each order the arithmetic
 * sum of both side bands re the high tone, the orders by root sum of squares (IEC 60268-3, modulation distortion; SMPTE
 * for tones and levels; both from memory).
 *
 * @returns null where two such tones are not there
 */
export function smpteIn(spectrum: ToneSpectrum): Intermodulation | null {
  const [low, high] = [strongestLine(spectrum, 30, 500), strongestLine(spectrum, 3000, 15_000)];
  if (low === null || high === null) return null;
  const amplitude = amplitudeOf(spectrum);
  const carrier = amplitude(high);
  const orders = SIDE_BANDS.map((n) => (amplitude(high - n * low) + amplitude(high + n * low)) / carrier);
  return {
    hz: [low, high],
    balanceDb: amplitudeToDb(amplitude(low) / carrier),
    db: amplitudeToDb(Math.hypot(...orders)),
  };
}

/**
 * Difference-frequency distortion: two equal tones close together (19 and 20 kHz). The products of second order
 * (f2 − f1) and third order (2·f1 − f2, 2·f2 − f1), each order re the sum of both tones' amplitudes, joined by root sum
 * of squares (IEC 60268-3, from memory).
 *
 * @returns null where two such tones are not there
 */
export function twinToneIn(spectrum: ToneSpectrum): Intermodulation | null {
  const first = strongestLine(spectrum, 5000, spectrum.highHz + 500);
  if (first === null) return null;
  // The other one: the strongest line well beside the first.
  const beside = [strongestLine(spectrum, first - 2000, first - 200), strongestLine(spectrum, first + 200, Math.min(first + 2000, spectrum.highHz + 500))]; // prettier-ignore
  const amplitude = amplitudeOf(spectrum);
  const second = beside
    .filter((hz): hz is number => hz !== null)
    .reduce<number | null>((best, hz) => (best === null || amplitude(hz) > amplitude(best) ? hz : best), null);
  if (second === null) return null;
  const [low, high] = first < second ? [first, second] : [second, first];
  const reference = amplitude(low) + amplitude(high);
  const products = [
    amplitude(high - low) / reference,
    // The upper of the third order may lie beyond what is read: then the lower stands for both.
    (2 * high - low < spectrum.highHz ? amplitude(2 * low - high) + amplitude(2 * high - low) : 2 * amplitude(2 * low - high)) / reference, // prettier-ignore
  ];
  return {
    hz: [low, high],
    balanceDb: amplitudeToDb(amplitude(low) / amplitude(high)),
    db: amplitudeToDb(Math.hypot(...products)),
  };
}
