import type { BandLevel } from './third-octave-spectrum';

/** What an accessory takes away (negative: adds) in one band. */
export interface RemovedBand {
  readonly centreHz: number;
  /** Level without minus level with; null where one of them is unknown. */
  readonly removedDb: number | null;
}

/**
 * What an accessory removes by band: the same sound without and with it. Speech and noise are asked for apart, since a
 * shield may take away room and colour the voice at once.
 *
 * @param without - spectrum without the accessory
 * @param fitted - spectrum with it, at the same gain
 */
export function removedByBand(without: readonly BandLevel[], fitted: readonly BandLevel[]): RemovedBand[] {
  return without.map(({ centreHz, levelDbfs }) => {
    const other = fitted.find((b) => b.centreHz === centreHz)?.levelDbfs ?? null;
    return { centreHz, removedDb: levelDbfs === null || other === null ? null : levelDbfs - other };
  });
}

/**
 * Decibels removed as the share of energy that is gone, 0…1.
 *
 * @example
 *   energyRemoved(3); // ≈ 0.4988
 */
export const energyRemoved = (db: number): number => 1 - 10 ** (-db / 10);
/**
 * Decibels removed as the share of amplitude that is gone, 0…1.
 *
 * @example
 *   amplitudeRemoved(6); // ≈ 0.4988
 */
export const amplitudeRemoved = (db: number): number => 1 - 10 ** (-db / 20);
/** Share of energy removed, in decibels. */
export const energyShareDb = (share: number): number => -10 * Math.log10(1 - share);
/** Share of amplitude removed, in decibels. */
export const amplitudeShareDb = (share: number): number => -20 * Math.log10(1 - share);

/** A removal in words that keep energy and amplitude apart: a percentage without its quantity means nothing. */
export function removalWords(db: number): string {
  const percent = (share: number): string => `${Math.round(100 * Math.abs(share))} %`;
  const size = `${Math.abs(db).toFixed(1)} dB`;
  return db >= 0
    ? `${size} less: ${percent(energyRemoved(db))} of the energy or ${percent(amplitudeRemoved(db))} of the amplitude is gone`
    : `${size} more: ${percent(energyRemoved(db))} more energy or ${percent(amplitudeRemoved(db))} more amplitude`;
}
