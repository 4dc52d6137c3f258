import { binRange, sumRange } from './bin-range';
import type { Band } from './third-octave-bands';

/** Denominators that are offered: 1/1 to 1/24 octave. */
export const OCTAVE_FRACTIONS = [1, 3, 6, 12, 24] as const;
export type OctaveFraction = (typeof OCTAVE_FRACTIONS)[number];

/** Octave ratio of the base-ten system, IEC 61260-1:2014 5.2: G = 10^(3/10). */
const G = 10 ** 0.3;

/**
 * Fractional-octave bands, IEC 61260-1:2014 clause 5, base ten, reference 1 kHz: mid-band frequencies
 * 1000·G^(x/b) for odd b and 1000·G^((2x+1)/2b) for even b; edges half a step to either side.
 *
 * @param fraction - b of 1/b octave
 * @param lowHz - bands whose mid-band frequency lies below are left out
 * @param highHz - and above
 * @returns bands in rising order; `nominalHz` is the exact mid-band frequency rounded to four digits
 */
export function fractionalOctaveBands(fraction: OctaveFraction, lowHz = 20, highHz = 20_000): Band[] {
  const shift = fraction % 2 === 0 ? 0.5 : 0;
  const index = (hz: number): number => (fraction * Math.log(hz / 1000)) / Math.log(G) - shift;
  // The nominal 20 Hz band has its exact centre at 19.95 Hz.
  const first = Math.ceil(index(lowHz) - 0.05);
  const last = Math.floor(index(highHz) + 0.05);
  return Array.from({ length: last - first + 1 }, (_, i) => {
    const exact = 1000 * G ** ((first + i + shift) / fraction);
    const half = G ** (1 / (2 * fraction));
    return { nominalHz: Number(exact.toPrecision(4)), lowHz: exact / half, highHz: exact * half };
  });
}

/**
 * Power in each band of a spectrum.
 *
 * @param powers - one-sided mean squares per bin, bin k at k·binHz
 * @param binHz - bin width
 * @param bands - bands
 * @returns one mean square per band; NaN where the band reaches beyond the spectrum or is narrower than a bin, since
 *   such a band would only repeat its neighbour
 */
export function bandPowers(powers: Float64Array, binHz: number, bands: readonly Band[]): Float64Array {
  return Float64Array.from(bands, (band) =>
    band.highHz > (powers.length - 1) * binHz || band.highHz - band.lowHz < binHz
      ? NaN
      : sumRange(powers, binRange(band, binHz)),
  );
}
