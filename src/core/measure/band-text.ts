/**
 * The band of a noise figure in words: 20 Hz–20 kHz, or as far as the sample rate reaches.
 *
 * @param highHz - upper limit
 */
export const bandText = (highHz: number): string => `20 Hz–${(highHz / 1000).toFixed(1).replace(/\.0$/, '')} kHz`;
