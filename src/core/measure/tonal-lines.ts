import type { PowerSpectrum } from '../dsp/welch';
import { quantileSorted } from '../stats/quantile';
import { meanSquareToDbfs, powerToDb, type Db, type Dbfs } from '../units';

/** A line that stands out of its surroundings. */
export interface TonalLine {
  readonly hz: number;
  /** AES17: a full-scale sine reads 0. The floor under the line is taken off. */
  readonly levelDbfs: Dbfs;
  /** Level of the line's bins re the median of the bins around it. */
  readonly aboveFloorDb: Db;
}

/** Bins to either side that a Hann window spreads a sine over. */
export const LINE_REACH = 2;
/** Bins to either side from which the floor is taken, leaving out the line itself. */
const FLOOR_REACH = 40;
const FLOOR_GAP = 4;
/** Median of exponentially distributed powers over their mean: ln 2. Averaging frames brings it towards 1. */
const medianOverMean = (frames: number): number => 1 - (1 - Math.LN2) / Math.max(1, frames);

/**
 * Mean power per bin around one bin, from the median so that other lines do not raise it.
 *
 * @param spectrum - Hann spectrum
 * @param bin - bin of the line
 */
export function localFloor(spectrum: PowerSpectrum, bin: number): number {
  const { powers, frames } = spectrum;
  const around = new Float64Array(2 * (FLOOR_REACH - FLOOR_GAP + 1));
  let count = 0;
  for (let d = FLOOR_GAP; d <= FLOOR_REACH; d++) {
    if (bin - d >= 1) around[count++] = powers[bin - d];
    if (bin + d < powers.length) around[count++] = powers[bin + d];
  }
  return quantileSorted(around.subarray(0, count).sort(), 0.5) / medianOverMean(frames);
}

/**
 * Power of the sine around a bin, the floor taken off. A Hann window spreads a sine over five bins whose powers add up
 * to its mean square (to 0.1 % wherever it lies between two bins).
 *
 * @param spectrum - Hann spectrum
 * @param bin - bin of the peak
 * @param floor - power per bin of the floor
 */
export function linePower(spectrum: PowerSpectrum, bin: number, floor: number): number {
  const { powers } = spectrum;
  let sum = 0;
  for (let k = Math.max(1, bin - LINE_REACH); k <= Math.min(powers.length - 1, bin + LINE_REACH); k++) {
    sum += powers[k] - floor;
  }
  return Math.max(0, sum);
}

/** Frequency of a peak between bins: parabola through the logarithms of three bins (within 0.05 bin for a Hann window). */
export function peakFrequency({ powers, binHz }: PowerSpectrum, bin: number): number {
  const [a, b, c] = [powers[bin - 1], powers[bin], powers[bin + 1]].map((p) => Math.log(p + 1e-300));
  const bend = a - 2 * b + c;
  return (bin + (bend === 0 ? 0 : (a - c) / (2 * bend))) * binHz;
}

/**
 * Measures the line at a bin, whatever its strength.
 */
export function lineAt(spectrum: PowerSpectrum, bin: number): TonalLine {
  const floor = localFloor(spectrum, bin);
  const power = linePower(spectrum, bin, floor);
  return {
    hz: peakFrequency(spectrum, bin),
    levelDbfs: meanSquareToDbfs(power),
    aboveFloorDb: powerToDb(spectrum.powers[bin] / floor) as Db,
  };
}

/**
 * How far above the floor a line must stand to be one: with few averaged frames noise alone makes peaks. For M frames
 * the power in a bin is about gamma distributed; the limit leaves one false line in some hundred spectra, and is never
 * less than 10 dB.
 *
 * @param frames - averaged frames (overlapping ones count half)
 * @param bins - bins that are looked at
 */
export function leastAboveFloorDb(frames: number, bins: number): number {
  const independent = Math.max(1, (frames + 1) / 2);
  const tail = Math.log(100 * bins);
  // Chernoff bound of a gamma variable with mean 1 and shape M: M·(x − 1 − ln x) = tail.
  let x = 2;
  for (let i = 0; i < 60; i++) x = 1 + Math.log(x) + tail / independent;
  return Math.max(10, powerToDb(x));
}

/**
 * All lines of a spectrum: local peaks that stand out of the median around them.
 *
 * @param spectrum - Hann spectrum of a steady stretch
 * @param lowHz - lowest frequency that is looked at
 * @param highHz - highest
 */
export function tonalLines(spectrum: PowerSpectrum, lowHz: number, highHz: number): TonalLine[] {
  const { powers, binHz, frames } = spectrum;
  const first = Math.max(LINE_REACH + 1, Math.ceil(lowHz / binHz));
  const last = Math.min(powers.length - LINE_REACH - 2, Math.floor(highHz / binHz));
  const least = leastAboveFloorDb(frames, last - first + 1);
  const lines: TonalLine[] = [];
  for (let k = first; k <= last; k++) {
    if (powers[k] <= powers[k - 1] || powers[k] < powers[k + 1]) continue;
    if (powers[k] < powers[k - 2] || powers[k] < powers[k + 2]) continue;
    // Noise in the shape of a hill is not a line: a sine falls by 20 dB or more within three bins of a Hann window.
    if (powers[k] < 5 * Math.max(powers[k - LINE_REACH - 1], powers[k + LINE_REACH + 1])) continue;
    if (powerToDb(powers[k] / localFloor(spectrum, k)) < least) continue;
    lines.push(lineAt(spectrum, k));
  }
  return lines;
}
