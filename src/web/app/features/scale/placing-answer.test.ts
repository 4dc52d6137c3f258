import { expect, it } from 'vitest';
import { pairAnswer, specimensOf, toggledInOrder } from './placing-answer';

it('the preferred clip of a pair comes first, whichever it is; without a preference the offer stays', () => {
  expect(pairAnswer(['A', 'B'], 'A')).toEqual({ codes: ['A', 'B'], isTie: false });
  expect(pairAnswer(['A', 'B'], 'B')).toEqual({ codes: ['B', 'A'], isTie: false });
  expect(pairAnswer(['A', 'B'], null)).toEqual({ codes: ['A', 'B'], isTie: true });
});

it('an order grows at its end, and a letter pressed again leaves it', () => {
  expect(['C', 'A', 'B'].reduce<readonly string[]>(toggledInOrder, [])).toEqual(['C', 'A', 'B']);
  expect(toggledInOrder(['C', 'A', 'B'], 'A')).toEqual(['C', 'B']);
});

it('letters stand for units in their own order', () => {
  const offered = [
    { code: 'A', specimenId: '7' },
    { code: 'B', specimenId: '3' },
  ];
  expect(specimensOf(['B', 'A'], offered)).toEqual(['3', '7']);
  expect(specimensOf(['B', 'X'], offered)).toEqual(['3']);
});
