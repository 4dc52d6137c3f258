/**
 * Steady lines this far under the A-weighted noise beside them add less than 0.05 dB to it (10·lg(1 + 10⁻²) = 0.043):
 * no figure and no ear needs them.
 */
const LEAST_RE_NOISE_DB = -20;

/**
 * Whether steady lines (hum, bus whine, bursts) are worth a word: strong enough beside the noise they stand in to change
 * what is measured.
 *
 * @param linesDbfs - power sum of the lines, dBFS; null where none were found
 * @param noiseDbfsA - A-weighted noise of the same stretch, dBFS; null where it was not measured: then nothing can be told
 */
export function doLinesMatter(linesDbfs: number | null, noiseDbfsA: number | null): boolean {
  return linesDbfs !== null && noiseDbfsA !== null && linesDbfs - noiseDbfsA > LEAST_RE_NOISE_DB;
}
