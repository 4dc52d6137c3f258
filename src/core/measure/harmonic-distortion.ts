import { powerToDb } from '../units';
import { meanPower, powersOf } from './frequency-response';
import { gated, harmonicSpacing, type ImpulseResponse } from './impulse-response';
import { measured, notMeasured, type Measurement } from './measurement';
import { quietPlaces } from './sweep-noise';

/** Harmonics that are taken apart. */
export const HIGHEST_ORDER = 5;

/** Distortion from a sweep, order by order. */
export interface HarmonicDistortion {
  /** Fundamental, in hertz. */
  readonly hz: number;
  /** Power of each harmonic re the fundamental, in dB, from the second on; null above half the sample rate. */
  readonly orders: readonly { readonly order: number; readonly db: number | null }[];
  /** Sum of those orders, in dB, the noise in it taken off, or all of it where that is a limit; null where none lies in band. */
  readonly thdDb: number | null;
  /** What noise alone puts into those windows, in dB. */
  readonly noiseDb: number | null;
  /** Next to the noise, what is read is mostly noise: then the figure is a limit. */
  readonly bound: 'exact' | 'at-most';
  /** Standard uncertainty of an exact figure, in dB: noise beside it. */
  readonly uncertaintyDb: number | null;
}

/** Powers re the fundamental. */
interface OrderReading {
  readonly power: number;
  readonly noise: number;
  readonly readings: number;
}

/** What stands less above the noise gives no level of its own. */
const LEAST_ABOVE_NOISE_DB = 3;
/** Half of the band in which a harmonic is read, as a ratio. */
const BAND_RATIO = 1.03;

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
    return meanPower(powers, binHz, frequency / BAND_RATIO, frequency * BAND_RATIO);
  };
  const fundamental = levelAt(1, hz, peak);
  const quiet = quietPlaces(response, 0.2).high;
  const highest = Math.min(0.95 * sweep.highHz, 0.48 * sampleRate);
  const read = Array.from({ length: HIGHEST_ORDER - 1 }, (_, i): OrderReading | null => {
    const order = i + 2;
    if (order * hz > highest) return null;
    return {
      power: levelAt(order, order * hz, peak - harmonicSpacing(response, order)) / fundamental,
      noise: levelAt(order, order * hz, quiet) / fundamental,
      // Independent readings of noise in the band and the time that are looked at.
      readings: Math.max(1, order * hz * (BAND_RATIO - 1 / BAND_RATIO) * 2 * Math.min(room(order) / sampleRate, 0.1)),
    };
  });
  const orders = read.map((r, i) => ({ order: i + 2, db: r && powerToDb(r.power) }));
  const inBand = read.filter((r) => r !== null);
  const sum = inBand.reduce((s, r) => s + r.power, 0);
  const noise = inBand.reduce((s, r) => s + r.noise, 0);
  const noiseDb = noise > 0 ? powerToDb(noise) : null;
  if (!(sum > 0)) return { hz, orders, thdDb: null, noiseDb, bound: 'exact', uncertaintyDb: null };
  if (noiseDb !== null && powerToDb(sum) - noiseDb < LEAST_ABOVE_NOISE_DB)
    return { hz, orders, thdDb: powerToDb(sum), noiseDb, bound: 'at-most', uncertaintyDb: null };
  const clean = sum - noise;
  // Noise beside a steady tone: its amplitude by its in-phase part, and the noise that is taken off by its own scatter.
  const variance = inBand.reduce(
    (s, { power, noise: own, readings }) => s + (2 * Math.max(0, power - own) * own + 2 * own ** 2) / readings,
    0,
  );
  return {
    hz,
    orders,
    thdDb: powerToDb(clean),
    noiseDb,
    bound: 'exact',
    uncertaintyDb: ((10 / Math.LN10) * Math.sqrt(variance)) / clean,
  };
}

/** The figure with its condition. */
export function distortionMeasurement(distortion: HarmonicDistortion, how: string): Measurement {
  const { hz, thdDb, noiseDb, bound, uncertaintyDb } = distortion;
  if (thdDb === null) return notMeasured('thdSweep', how, 'No harmonic lies within the sweep.');
  return measured('thdSweep', thdDb, `harmonics 2–5 at ${hz} Hz, ${how}`, {
    bound,
    uncertainty: uncertaintyDb,
    settings: noiseDb === null ? {} : { noiseDb },
  });
}
