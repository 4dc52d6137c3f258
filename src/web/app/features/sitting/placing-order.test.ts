import { describe, expect, it } from 'vitest';
import { beginOrder, gapName, move, place } from './placing-order';
// prettier-ignore

describe('placing one after another', () => {
  it('never asks for more than one place at a time, and ends with everything placed', () => {
    let order = beginOrder(['A', 'B', 'C', 'D']);
    expect(order).toEqual({ placed: ['A'], waiting: ['B', 'C', 'D'] });
    expect(gapName(order, 0)).toBe('better than A');
    expect(gapName(order, 1)).toBe('behind A');
    order = place(order, 0);
    expect(gapName(order, 1)).toBe('between B and A');
    order = place(order, 1);
    order = place(order, 3);
    expect(order).toEqual({ placed: ['B', 'C', 'A', 'D'], waiting: [] });
    expect(place(order, 0)).toEqual(order);
  });

  it('lets a finished order be mended, but not over its ends', () => {
    const order = { placed: ['B', 'C', 'A'], waiting: [] };
    expect(move(order, 'A', -1).placed).toEqual(['B', 'A', 'C']);
    expect(move(order, 'B', 1).placed).toEqual(['C', 'B', 'A']);
    expect(move(order, 'B', -1)).toEqual(order);
    expect(move(order, 'A', 1)).toEqual(order);
    expect(move(order, 'X', 1)).toEqual(order);
  });
});
