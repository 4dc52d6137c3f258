import { powerToDb } from '../units';
import { meanPower, powersOf } from './frequency-response';
import { gated, harmonicSpacing, type ImpulseResponse } from './impulse-response';

/** Harmonics that are taken apart. */
export const HIGHEST_ORDER = 5;

/** Distortion from a sweep, order by order. */
export interface HarmonicDistortion {
  /** Fundamental, in hertz. */
  readonly hz: number;
  /** Power of each harmonic re the fundamental, in dB, from the second on; null above half the sample rate. */
  readonly orders: readonly { readonly order: number; readonly db: number | null }[];
  /** Sum of those orders, in dB; null where none lies in band. */
  readonly thdDb: number | null;
  /** What noise alone puts into those windows, in dB; distortion near it is an upper limit only. */
  readonly noiseDb: number | null;
}

/**
 * Harmonic distortion at one frequency from the impulse response of an exponential sweep: harmonic n arrives L·ln n
 * before the linear response (Farina 2000), so each is cut out and transformed by itself.
 *
 * @param response - from {@link impulseResponse}
 * @param hz - fundamental
 */
export function harmonicDistortion(response: ImpulseResponse, hz: number): HarmonicDistortion {
  const { samples, sampleRate, peak, sweep } = response;
  // Half of the way to the next harmonic on either side, whichever is nearer.
  const room = (order: number): number =>
    Math.floor(0.45 * (harmonicSpacing(response, order + 1) - harmonicSpacing(response, order)));
  const levelAt = (order: number, frequency: number, centre: number): number => {
    const half = Math.min(room(order), Math.round(0.1 * sampleRate));
    const powers = powersOf(gated(samples, centre, half, half));
    const binHz = sampleRate / (2 * (powers.length - 1));
    return meanPower(powers, binHz, frequency / 1.03, frequency * 1.03);
  };
  const fundamental = levelAt(1, hz, peak);
  // Half a turn away from the direct sound there is neither room nor harmonic: what stands there is noise.
  const quiet = peak + (samples.length >> 1);
  let noise = 0;
  const highest = Math.min(0.95 * sweep.highHz, 0.48 * sampleRate);
  let sum = 0;
  const orders = Array.from({ length: HIGHEST_ORDER - 1 }, (_, i) => {
    const order = i + 2;
    if (order * hz > highest) return { order, db: null };
    const power = levelAt(order, order * hz, peak - harmonicSpacing(response, order)) / fundamental;
    sum += power;
    noise += levelAt(order, order * hz, quiet) / fundamental;
    return { order, db: powerToDb(power) };
  });
  const decibels = (power: number): number | null => (power > 0 ? powerToDb(power) : null);
  return { hz, orders, thdDb: decibels(sum), noiseDb: decibels(noise) };
}
