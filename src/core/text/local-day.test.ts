import { expect, it } from 'vitest';
import { addDays, localDay } from './local-day';

// Offsets of 2026 from the tz database (public domain), from memory: New York −5 h in winter and −4 h in summer,
// Auckland +13 h in summer, Kiritimati +14 h, Lisbon +0 and +1 h; clocks change on 8 March (New York) and 29 March (Lisbon).
it.each([
  ['2026-01-16T01:59:00Z', 'America/New_York', '2026-01-15'],
  ['2026-01-16T05:00:00Z', 'America/New_York', '2026-01-16'],
  ['2026-01-15T11:00:00Z', 'Pacific/Auckland', '2026-01-16'],
  ['2026-01-15T10:00:00Z', 'Pacific/Kiritimati', '2026-01-16'],
  ['2026-01-15T23:59:59Z', 'Europe/Lisbon', '2026-01-15'],
  ['2026-07-15T23:00:00Z', 'Europe/Lisbon', '2026-07-16'],
  ['2025-12-31T23:30:00Z', 'UTC', '2025-12-31'],
  // The night in which clocks go forward, before and after.
  ['2026-03-08T04:59:00Z', 'America/New_York', '2026-03-07'],
  ['2026-03-09T03:59:00Z', 'America/New_York', '2026-03-08'],
  ['2026-03-09T04:00:00Z', 'America/New_York', '2026-03-09'],
])('%s in %s is %s', (at, zone, day) => {
  expect(localDay(new Date(at), zone)).toBe(day);
});

it('refuses a zone that is none', () => {
  expect(() => localDay(new Date(0), 'Europe/Harbour')).toThrow(RangeError);
});

it('days are added by the calendar: over months, years, 29 February, and days of 23 hours', () => {
  expect(addDays('2026-01-31', 1)).toBe('2026-02-01');
  expect(addDays('2026-12-31', 1)).toBe('2027-01-01');
  expect(addDays('2028-02-28', 1)).toBe('2028-02-29');
  expect(addDays('2026-03-28', 2)).toBe('2026-03-30');
  expect(addDays('2026-03-01', -1)).toBe('2026-02-28');
  expect(addDays('2026-05-02', 0)).toBe('2026-05-02');
});
