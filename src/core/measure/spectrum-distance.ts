import { mean } from '../stats/moments';
import type { BandLevel } from './third-octave-spectrum';

const LOW_HZ = 100;
const HIGH_HZ = 12_500;
/** A band this far below the loudest one tells of noise, not of the unit. */
const RANGE_DB = 50;

/**
 * How unlike the shapes of two spectra are: RMS of the difference of third-octave levels from 100 Hz to 12.5 kHz after
 * its mean is taken off, in decibels. Level does not count.
 *
 * @param a - third octaves
 * @param b - the same bands of the other
 * @returns null where fewer than ten bands can be compared
 */
export function spectrumDistance(a: readonly BandLevel[], b: readonly BandLevel[]): number | null {
  const floor = (bands: readonly BandLevel[]): number =>
    bands.reduce((m, x) => Math.max(m, x.levelDbfs ?? -Infinity), -Infinity) - RANGE_DB;
  const [floorA, floorB] = [floor(a), floor(b)];
  const other = new Map(b.map((x) => [x.centreHz, x.levelDbfs]));
  const differences = a.flatMap(({ centreHz, levelDbfs }) => {
    const level = other.get(centreHz) ?? null;
    const isUsed = centreHz >= LOW_HZ && centreHz <= HIGH_HZ && levelDbfs !== null && level !== null;
    return isUsed && levelDbfs > floorA && level > floorB ? [levelDbfs - level] : [];
  });
  if (differences.length < 10) return null;
  const centre = mean(differences);
  return Math.sqrt(mean(differences.map((d) => (d - centre) ** 2)));
}
