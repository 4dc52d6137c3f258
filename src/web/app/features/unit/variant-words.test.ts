import { expect, it } from 'vitest';
import { row } from '../../testing/rows';
import {
  configurationWords,
  countingChoices,
  countingSentence,
  countsNow,
  familyRows,
  possibleMains,
} from './variant-words';

const of = (configuration: string, counts: boolean) => ({
  family: { main: '2', configuration, varies: configuration === '' ? null : ('pattern' as const), counts },
});
const MAIN = row({ id: '2', label: 'A', ...of('', true) });
const EIGHT = row({ id: '1', label: 'A, figure of eight', ...of('figure of eight', false) });
const OTHER = row({ id: '7', label: 'B' });

it('lists the unit first, then its configurations, and nothing else', () => {
  expect(familyRows([EIGHT, OTHER, MAIN], of('', true).family).map((r) => r.id)).toEqual(['2', '1']);
  const words = (unit: typeof MAIN) => configurationWords(unit, [unit, EIGHT]);
  expect([MAIN, EIGHT, OTHER].map(words)).toEqual(['as entered', 'figure of eight', '']);
  // Its sheet says what it is where the others differ from it.
  const classes = { pattern: ['supercardioid'], connection: ['XLR'] };
  expect(words({ ...MAIN, classes })).toBe('supercardioid');
});

it('offers each of them and all, and says which holds', () => {
  expect(countingChoices([MAIN, EIGHT]).map((c) => c.value)).toEqual(['2', '1', 'each']);
  expect(countsNow([MAIN, EIGHT])).toBe('2');
  expect(
    countsNow([
      { ...MAIN, ...of('', false) },
      { ...EIGHT, ...of('figure of eight', true) },
    ]),
  ).toBe('1');
  expect(countsNow([MAIN, { ...EIGHT, ...of('figure of eight', true) }])).toBe('each');
});

it('says when what counts has not been tested', () => {
  expect(countingSentence([MAIN, EIGHT])).toBe('');
  expect(countingSentence([{ ...MAIN, lastTested: null }, EIGHT])).toMatch(/“as entered” has not been tested yet/);
  // One that does not count may wait.
  expect(countingSentence([MAIN, { ...EIGHT, lastTested: null }])).toBe('');
  const both = [MAIN, { ...EIGHT, ...of('figure of eight', true), lastTested: null }];
  expect(countingSentence(both)).toBe('Not tested yet: figure of eight.');
});

it('offers as a unit to be one of: others of its kind that are no configuration', () => {
  const booster = row({ id: '9', category: 'booster' });
  expect(possibleMains([MAIN, EIGHT, OTHER, booster], OTHER).map((m) => m.value)).toEqual(['2']);
  expect(possibleMains([MAIN, EIGHT, OTHER, booster], EIGHT).map((m) => m.value)).toEqual(['2', '7']);
});
