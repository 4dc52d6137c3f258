import type { ToneSpectrum } from '../measure/tone-spectrum';

/**
 * A spectrum with bins of 1 Hz that holds sines of these amplitudes, each in one bin.
 *
 * @param amplitudes - by hertz
 * @param highHz - upper limit of what is read
 */
export function toneLines(amplitudes: Readonly<Record<number, number>>, highHz = 20_000): ToneSpectrum {
  const powers = new Float64Array(24_000);
  for (const [hz, amplitude] of Object.entries(amplitudes)) powers[Number(hz)] = amplitude ** 2 / 2;
  return { powers, binHz: 1, highHz };
}
