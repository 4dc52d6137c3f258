import { expect, it } from 'vitest';
import type { UnitFacts } from './criterion-points';
import { movedBecause } from './moved-because';
import type { Rubric } from './rubric';

const hand = (id: string) => ({ id, name: id, meaning: 'm', kind: 'by-hand', repeatability: 0.2 }) as const;
const rubric = (...ids: string[]): Rubric => ({ id: 'r', version: 1, name: 'R', category: 'microphone', criteria: ids.map(hand), weights: {}, stratumProbability: 0.9 }); // prettier-ignore
const unit = (points: Readonly<Record<string, number>>): UnitFacts => ({
  id: '1',
  figures: {},
  byHand: Object.fromEntries(Object.entries(points).map(([id, value]) => [id, { value, reason: `now ${value}` }])),
  prices: [],
});

it('names what changed, the largest first, what came and went before all', () => {
  const changes = movedBecause(
    { unit: unit({ a: 3, b: 2, c: 4, gone: 1 }), rubric: rubric('a', 'b', 'c', 'gone', 'never') },
    { unit: unit({ a: 3, b: 3.5, c: 3, new: 5 }), rubric: rubric('a', 'b', 'c', 'gone', 'never', 'new') },
  );
  expect(changes.map((c) => [c.criterion, c.before, c.after])).toEqual([
    ['gone', 1, null],
    ['new', null, 5],
    ['b', 2, 3.5],
    ['c', 4, 3],
  ]);
  expect(changes[2].why).toBe('now 3.5');
});

it('finds nothing in what is the same, or shown alike', () => {
  const rules = rubric('a');
  expect(movedBecause({ unit: unit({ a: 3 }), rubric: rules }, { unit: unit({ a: 3.04 }), rubric: rules })).toEqual([]);
});
