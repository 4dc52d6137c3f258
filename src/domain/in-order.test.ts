import { expect, it } from 'vitest';
import { inOrder } from './in-order';

it('gives what is known in the order of the keys, and nothing for the others', () => {
  const known = new Map([
    ['a', 1],
    ['b', 2],
    ['c', 0],
  ]);
  expect(inOrder(known, ['c', 'x', 'a'])).toEqual([0, 1]);
  expect(inOrder(known, [])).toEqual([]);
});
