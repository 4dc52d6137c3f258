import { describe, expect, it } from 'vitest';
import { stripModel } from './strip-model';

describe('place in the catalogue', () => {
  it('counts from the better end', () => {
    expect(stripModel(12, [10, 14, 20], 'lower')).toMatchObject({ place: '2 / 4', low: 10, high: 20, self: 20 });
    expect(stripModel(12, [10, 14, 20], 'higher').place).toBe('3 / 4');
    expect(stripModel(12, [10, 14, 20], null).words).toMatch(/3 of 4, counted from the highest/);
    expect(stripModel(5, [5, 5], 'lower')).toMatchObject({ place: '1 / 3', self: 50, others: [50, 50] });
  });
});
