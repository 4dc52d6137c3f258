/**
 * Hann window, periodic (the form for spectra: the sample after the last would equal the first).
 *
 * @param length - samples
 * @returns the window, maximum 1
 */
export function hann(length: number): Float64Array {
  return Float64Array.from({ length }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length));
}
