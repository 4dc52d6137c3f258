import { describe, expect, it } from 'vitest';
import { beatenFavourites } from './beaten-favourites';
import type { UnitFacts } from './criterion-points';
import type { Rubric } from './rubric';

const rubric: Rubric = {
  id: 'r', version: 1, name: 'R', category: 'microphone', weights: { sound: 1, value: 1 }, stratumProbability: 0.9,
  criteria: [
    { kind: 'by-hand', id: 'sound', name: 'Sound', meaning: 'm', repeatability: 0.1 },
    { kind: 'price', id: 'value', name: 'Value', meaning: 'm', currency: 'EUR', basis: ['street'], curve: [[0, 5], [1000, 0]], limit: null },
  ],
}; // prettier-ignore
const unit = (id: string, reviewedOn: string | null, sound: number, amount: number | null): UnitFacts => ({
  id, reviewedOn, figures: {}, byHand: { sound: { value: sound, reason: null } },
  prices: amount === null ? [] : [{ amount, currency: 'EUR', kind: 'street', date: '2020-01-01' }],
}); // prettier-ignore
const beaten = (...units: UnitFacts[]) => beatenFavourites(units, rubric).map((b) => [b.id, b.by]);

describe('favourites that were beaten', () => {
  it('are those of their day that a later one beats clearly for no more money', () => {
    const old = unit('old', '2020-01-01', 3, 300);
    expect(beaten(old, unit('new', '2021-01-01', 4, 300))).toEqual([['old', 'new']]);
    // It costs more; it is not told apart; it was there already.
    expect(beaten(old, unit('dear', '2021-01-01', 4, 301))).toEqual([]);
    expect(beaten(old, unit('alike', '2021-01-01', 3.05, 200))).toEqual([]);
    expect(beaten(old, unit('before', '2019-01-01', 4, 200))).toEqual([]);
  });

  it('stood at the top on the day of their test: whoever was beaten then was no favourite', () => {
    const then = [unit('first', '2020-01-01', 4, 400), unit('second', '2020-02-01', 3, 300)];
    const later = unit('later', '2021-01-01', 4.6, 250);
    expect(beaten(...then, later)).toEqual([['first', 'later']]);
    // In one stratum with the first it was one.
    expect(beaten(then[0], unit('second', '2020-02-01', 3.95, 300), later).sort()).toEqual([['first', 'later'], ['second', 'later']]); // prettier-ignore
  });

  it('name the best of those that beat them, with what both cost, and the latest favourite first', () => {
    const rows = beatenFavourites(
      [unit('a', '2019-01-01', 2, 300), unit('b', '2020-01-01', 3, 300), unit('c', '2021-01-01', 4, 200), unit('d', '2022-01-01', 3.6, 100)], // prettier-ignore
      rubric,
    );
    expect(rows.map((r) => [r.id, r.by, r.price, r.byPrice])).toEqual([
      ['b', 'c', 300, 200],
      ['a', 'c', 300, 200],
    ]);
    expect(rows[0].probability).toBeGreaterThan(0.99);
  });

  it('are listed by the day on which they stood at the top, the latest first, whatever their points', () => {
    const rows = beaten(
      unit('late', '2020-03-01', 2, 100),
      unit('best', '2020-01-01', 3, 300),
      unit('middle', '2020-02-01', 2.95, 300),
      unit('new', '2021-01-01', 4, 90),
    );
    // The late one was beaten by the best on its own day: it never stood at the top.
    expect(rows).toEqual([['middle', 'new'], ['best', 'new']]); // prettier-ignore
    const alone = beaten(unit('b', '2020-03-01', 3.02, 300), unit('a', '2020-01-01', 3, 300), unit('c', '2020-02-01', 3.04, 300), unit('new', '2021-01-01', 4, 90)); // prettier-ignore
    expect(alone.map(([id]) => id)).toEqual(['b', 'c', 'a']);
  });

  it('are held against those of the same day, and beaten only by later ones', () => {
    expect(beaten(unit('a', '2020-01-01', 3, 300), unit('b', '2020-01-01', 4, 200))).toEqual([]);
    // Of the same price, and of one that is dearer by a cent; a better one without a price, or a dear one, does not hide it.
    const old = unit('a', '2020-01-01', 3, 300);
    expect(beaten(old, unit('free', '2021-01-01', 4.5, null), unit('dear', '2021-01-01', 4.4, 900), unit('b', '2021-01-01', 4, 300))).toEqual([['a', 'b']]); // prettier-ignore
  });

  it('one that is as good is better as often as not', () => {
    const exact = { ...rubric, criteria: [{ ...rubric.criteria[0], repeatability: 0 }, rubric.criteria[1]] } as Rubric;
    const rows = (sound: number) => beatenFavourites([unit('a', '2020-01-01', 3, 300), unit('b', '2021-01-01', sound, 300)], exact); // prettier-ignore
    expect(rows(3)).toEqual([]);
    expect(rows(3.001).map((r) => r.probability)).toEqual([1]);
  });

  it('cannot be told without a price, a day or a rule', () => {
    expect(beaten(unit('old', '2020-01-01', 3, null), unit('new', '2021-01-01', 4, 300))).toEqual([]);
    expect(beaten(unit('old', null, 3, 300), unit('new', '2021-01-01', 4, 300))).toEqual([]);
    expect(beatenFavourites([unit('old', '2020-01-01', 3, 300)], { ...rubric, criteria: [rubric.criteria[0]] })).toEqual([]); // prettier-ignore
  });
});
