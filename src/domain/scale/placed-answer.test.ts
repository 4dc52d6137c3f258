import { describe, expect, it } from 'vitest';
import { placedAnswer } from './placed-answer';

const pair = { order: ['2', '1'], offered: ['1', '2'], isTie: false, residualsLu: [0.1, -0.2] };

describe('an answer to a question of a placing', () => {
  it('of a pair is kept as it was offered, with who won', () => {
    expect(placedAnswer('1', pair)).toEqual({
      specimens: ['1', '2'],
      outcome: 0,
      tiesAllowed: true,
      circumstances: [
        [0, 0.1, 0],
        [1, -0.2, 0],
      ],
    });
    expect(placedAnswer('1', { ...pair, order: ['1', '2'] })).toMatchObject({ specimens: ['1', '2'], outcome: 1 });
    expect(placedAnswer('1', { ...pair, isTie: true })).toMatchObject({ outcome: 0.5 });
  });

  it('of four is kept as it was answered, each with the place at which it was offered', () => {
    const four = { order: ['3', '1', '4', '2'], offered: ['1', '2', '3', '4'], isTie: false, residualsLu: [0.1, 0.2] };
    expect(placedAnswer('4', four)).toEqual({
      specimens: ['3', '1', '4', '2'],
      outcome: null,
      tiesAllowed: false,
      // What is not told of a level counts as matched.
      circumstances: [
        [2, 0, 0],
        [0, 0.1, 0],
        [3, 0, 0],
        [1, 0.2, 0],
      ],
    });
    expect(placedAnswer('4', { ...four, isTie: true })).toEqual({ refusal: 'Only a pair can be left undecided.' });
  });

  it.each([
    ['another clip', { ...pair, order: ['2', '3'] }],
    ['one clip twice', { ...pair, order: ['2', '2'] }],
    ['fewer clips than were offered', { ...pair, order: ['1'] }],
    ['clips without the unit', { ...pair, order: ['3', '2'], offered: ['2', '3'] }],
  ])('that orders %s is refused', (_, sent) => {
    expect(placedAnswer('1', sent)).toHaveProperty('refusal');
  });
});
