/**
 * The day of a moment where somebody is, as ISO 8601 has it. A session at nine in the evening west of Greenwich is of
 * that day, though it is tomorrow in UTC.
 *
 * @param at - the moment
 * @param zone - IANA name of a time zone, as `Europe/Lisbon`
 * @returns `2026-05-02`
 * @throws RangeError for a zone that is none
 *
 * @example
 *   localDay(new Date('2026-05-03T01:00:00Z'), 'America/New_York'); // => '2026-05-02'
 */
export function localDay(at: Date, zone: string): string {
  const parts = new Intl.DateTimeFormat('en', { timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit' });
  const of = Object.fromEntries(parts.formatToParts(at).map(({ type, value }) => [type, value]));
  return `${of['year'].padStart(4, '0')}-${of['month']}-${of['day']}`;
}

/**
 * A day so many days later, by the calendar: days have 23 and 25 hours where clocks change.
 *
 * @param day - ISO 8601
 * @param days - whole; negative for earlier
 *
 * @example
 *   addDays('2024-02-28', 2); // => '2024-03-01'
 */
export function addDays(day: string, days: number): string {
  const at = new Date(`${day}T00:00:00Z`);
  at.setUTCDate(at.getUTCDate() + days);
  return at.toISOString().slice(0, 10);
}
