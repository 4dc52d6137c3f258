import { expect, it } from 'vitest';
import { rankMoves } from './rank-moves';

const unit = (id: string, place: number, low: number, high: number) => ({ id, place, rank90: [low, high] as const });

it('a move is beyond doubt where either order calls the other place unlikely', () => {
  const before = [
    unit('a', 1, 1, 1),
    unit('b', 2, 2, 4),
    unit('c', 3, 2, 4),
    unit('d', 4, 3, 4),
    unit('gone', 5, 5, 5),
  ];
  const after = [unit('d', 1, 1, 2), unit('b', 2, 1, 3), unit('a', 3, 2, 3), unit('c', 4, 3, 4), unit('new', 5, 5, 5)];
  expect(rankMoves(before, after)).toEqual([
    // From 4, where it was 3 to 4, to 1, where it is 1 to 2.
    { id: 'd', before: 4, after: 1, rises: 3, isBeyondDoubt: true },
    { id: 'b', before: 2, after: 2, rises: 0, isBeyondDoubt: false },
    { id: 'a', before: 1, after: 3, rises: -2, isBeyondDoubt: true },
    // It falls to 4, where it might have stood before as well.
    { id: 'c', before: 3, after: 4, rises: -1, isBeyondDoubt: false },
    { id: 'new', before: null, after: 5, rises: 0, isBeyondDoubt: false },
    { id: 'gone', before: 5, after: null, rises: 0, isBeyondDoubt: false },
  ]);
});

it('one interval alone does not make it so', () => {
  expect(rankMoves([unit('a', 1, 1, 1)], [unit('a', 3, 1, 3)])[0].isBeyondDoubt).toBe(false);
  expect(rankMoves([unit('a', 1, 1, 3)], [unit('a', 3, 3, 3)])[0].isBeyondDoubt).toBe(false);
});
