import { expect, it } from 'vitest';
import { clockIn, deskZone } from './clock';
import { StartRefused } from './start-refused';

it('an evening west of Greenwich is of that day, though it is tomorrow in UTC', () => {
  const clock = clockIn('America/New_York', () => new Date('2026-05-03T02:30:00Z'));
  expect([clock.today(), clock.inDays(1), clock.inDays(-2)]).toEqual(['2026-05-02', '2026-05-03', '2026-04-30']);
});

it('the desk is where this machine stands, or where it is said to stand', () => {
  expect(deskZone(undefined)).toBe(Intl.DateTimeFormat().resolvedOptions().timeZone);
  expect(deskZone('Pacific/Auckland')).toBe('Pacific/Auckland');
  expect(() => deskZone('Harbour')).toThrow(StartRefused);
});
