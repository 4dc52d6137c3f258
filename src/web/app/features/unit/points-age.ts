import type { SpecimenSheet } from '#contracts/specimen';

/**
 * What has happened to a unit since points were given for it, so that whoever reads them knows that they speak of an
 * earlier state: a repair, new firmware, another test.
 *
 * @param givenOn - day of the points
 * @param sheet - of the unit
 * @returns '' where they are as new as everything else
 */
export function sinceGiven(givenOn: string, { runs, events }: Pick<SpecimenSheet, 'runs' | 'events'>): string {
  const newest = (days: readonly string[]): string | null =>
    days.reduce<string | null>((last, day) => (day > givenOn && (last === null || day > last) ? day : last), null);
  const ofEvent = (kind: 'repair' | 'firmware'): string | null =>
    newest(events.flatMap((e) => (e.kind === kind ? [e.day] : [])));
  const [repaired, firmware] = [ofEvent('repair'), ofEvent('firmware')];
  const tested = newest(runs.filter((r) => r.purpose === 'unit').map((r) => r.date));
  const parts = [
    ...(repaired === null ? [] : [`repaired on ${repaired}`]),
    ...(firmware === null ? [] : [`new firmware on ${firmware}`]),
    ...(tested === null ? [] : [`tested again on ${tested}`]),
  ];
  return parts.length === 0 ? '' : `older than what they speak of: ${parts.join(', ')}`;
}
