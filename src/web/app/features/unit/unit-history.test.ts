import { expect, it } from 'vitest';
import type { Rubric } from '#core/rules/rubric';
import type { SpecimenSheet } from '#contracts/specimen';
import { unitHistory } from './unit-history';

const text = (value: string) => ({ type: 'text', text: value }) as const;
const sheet = {
  row: { category: 'microphone' },
  runs: [{ date: '2026-02-01', protocol: 'desk-voice', protocolVersion: 2, purpose: 'unit', takes: [{}, {}] }],
  prices: [{ amount: 99, currency: 'EUR', kind: 'street', date: '2026-01-01' }],
  sheet: [
    { field: 'origin', value: null, date: '2026-03-01', reason: 'nobody knows' },
    { field: 'origin', value: text('here'), date: '2026-01-01', reason: '' },
  ],
  points: [
    { criterion: 'build', value: 4, reason: null, date: '2026-02-01' },
    { criterion: 'build', value: 3, reason: 'a dent', date: '2026-01-15' },
    { criterion: 'gone', value: 1, reason: null, date: '2026-01-15' },
  ],
  events: [{ kind: 'repair', day: '2026-01-20', note: 'new plug' }],
  photographs: [{ date: '2026-01-01', caption: '', subject: 'box' }],
  relations: [{ kind: 'replaces', isOwn: false, other: { id: '2', name: 'Oarlock Bosun · A' }, name: '', since: '2026-03-02' }],
} as unknown as SpecimenSheet; // prettier-ignore

it('says what was said of a unit, newest first, and what has taken its place', () => {
  const rubric = { criteria: [{ id: 'build', name: 'Build' }] } as unknown as Rubric;
  expect(unitHistory(sheet, rubric).map((l) => [l.day, l.text, l.until])).toEqual([
    ['2026-03-02', 'It is replaced by Oarlock Bosun · A', null],
    ['2026-03-01', 'Made in: taken back (nobody knows)', null],
    ['2026-02-01', 'Tested: desk-voice 2, 2 takes', null],
    ['2026-02-01', 'Build: 4.0 points', null],
    ['2026-01-20', 'Repaired: new plug', null],
    ['2026-01-15', 'Build: 3.0 points (a dent)', '2026-02-01'],
    ['2026-01-15', 'gone: 1.0 points', null],
    ['2026-01-01', 'street price 99 EUR', null],
    ['2026-01-01', 'Made in: here', '2026-03-01'],
    ['2026-01-01', 'Photograph of the box', null],
  ]);
});
