import { expect, it } from 'vitest';
import type { Rubric } from './rubric';
import { shownTotal, weightsFor } from './shown-total';

const hand = (id: string) => ({ id, name: id, meaning: 'm', kind: 'by-hand', repeatability: 0.2 }) as const;
const RUBRIC: Rubric = {
  id: 'r',
  version: 1,
  name: 'R',
  category: 'microphone',
  criteria: [hand('a'), hand('b'), hand('c')],
  weights: { a: 2, b: 1, c: 0 },
  uses: [{ name: 'singing', weights: { c: 3 } }],
  stratumProbability: 0.9,
};

it('shows the same total in three ways', () => {
  // A mean of 4 of 5 over two criteria that count: 8 of 10, 80 per cent.
  const mean = 4;
  const as = (total: Rubric['total']) => shownTotal({ ...RUBRIC, ...(total ? { total } : {}) }, RUBRIC.weights);
  expect([as(undefined), as('mean')].map((t) => [t.factor * mean, t.most])).toEqual([[4, 5], [4, 5]]); // prettier-ignore
  expect([as('sum').factor * mean, as('sum').most, as('sum').head]).toEqual([8, 10, 'Points of 10']);
  expect([as('per-cent').factor * mean, as('per-cent').most]).toEqual([80, 100]);
  // Where nothing counts, all count alike.
  expect(shownTotal({ ...RUBRIC, total: 'sum' }, {}).most).toBe(15);
});

it('a use changes the weights that it names; a name that is none changes nothing', () => {
  expect(weightsFor(RUBRIC, 'singing')).toEqual({ a: 2, b: 1, c: 3 });
  expect(weightsFor(RUBRIC, 'yodelling')).toBe(RUBRIC.weights);
  expect(weightsFor(RUBRIC, null)).toBe(RUBRIC.weights);
});
