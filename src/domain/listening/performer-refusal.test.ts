import { expect, it } from 'vitest';
import { performerRefusal } from './performer-refusal';

const ITEMS = [{ id: '1' }, { id: '2' }];

it('an order of items of the test is kept, with words about them or without', () => {
  expect(performerRefusal({ order: ['2', '1'], words: { 1: ['dull'] } }, ITEMS)).toBeNull();
  expect(performerRefusal({ order: ['2'], words: {} }, ITEMS)).toBeNull();
});

it.each([
  ['an item twice', { order: ['1', '1'], words: {} }],
  ['an item of another test', { order: ['1', '3'], words: {} }],
  ['words about an item of another test', { order: ['1'], words: { 3: ['dull'] } }],
])('%s is refused', (_, entry) => {
  expect(performerRefusal(entry, ITEMS)).toMatch(/not in this test, or names it twice/);
});
