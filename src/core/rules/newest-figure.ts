/** A reading of a figure, as far as the choice between readings needs it. */
export interface Reading {
  readonly value: number | null;
  /** The day it was read, ISO 8601. */
  readonly day: string;
}

/**
 * The reading that counts: the newest that has a value. A newer run that could not measure a figure, or did not try,
 * takes nothing away; only where nothing was ever measured does the newest reason count.
 *
 * @param readings - of one figure of one unit, newest first
 * @returns the reading, and the day of a newer run that does not have it, or null
 */
export function newestFigure<T extends Reading>(
  readings: readonly T[],
): { reading: T; missingSince: string | null } | null {
  const newest = readings.at(0);
  if (!newest) return null;
  const reading = readings.find((r) => r.value !== null) ?? newest;
  return { reading, missingSince: reading === newest || reading.day === newest.day ? null : newest.day };
}

/**
 * Runs that say something of the unit: those that open or close a session are the rig's.
 *
 * @param runs - of one unit
 */
export const runsOfTheUnit = <T extends { readonly purpose: 'opening' | 'unit' | 'closing' }>(
  runs: readonly T[],
): T[] => runs.filter((r) => r.purpose === 'unit');
