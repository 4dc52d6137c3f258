import { describe, expect, it } from 'vitest';
import { hintFromPoints } from './observed-worth';

// Reckoned by hand: S(xx) = 17.5, S(xy) = 31, S(yy) = 70; what is left is 70 − 31²/17.5 with four degrees of freedom.
const WORTHS = [2, 6, 4, 10, 8, 12];
const POINTS = [1, 2, 3, 4, 5, 6];

describe('a hint at a worth by measured points', () => {
  it('is the line through all others, with the deviation of a further one about it', () => {
    const slope = 31 / 17.5;
    const rest = (70 - 31 ** 2 / 17.5) / 4;
    const hint = hintFromPoints([...WORTHS, 99], [...POINTS, 8], 6);
    expect(hint?.logWorth).toBeCloseTo(7 + 4.5 * slope, 9);
    expect(hint?.sd).toBeCloseTo(Math.sqrt(rest * (1 + 1 / 6 + 4.5 ** 2 / 17.5)), 9);
  });

  it('is never surer than 0.8', () => {
    const hint = hintFromPoints([...POINTS, 0], [...POINTS, 3.5], 6);
    expect([hint?.logWorth, hint?.sd]).toEqual([3.5, 0.8]);
  });

  it('knows only the mean where all points are the same', () => {
    const hint = hintFromPoints([...WORTHS, 0], new Array<number>(7).fill(5), 6);
    expect(hint?.logWorth).toBeCloseTo(7, 9);
    expect(hint?.sd).toBeCloseTo(Math.sqrt((70 / 4) * (7 / 6)), 9);
  });

  it('needs points of its own, and of six others', () => {
    expect(hintFromPoints([...WORTHS, 0], [...POINTS, null], 6)).toBeNull();
    expect(hintFromPoints([...WORTHS, 0], [null, 2, 3, 4, 5, 6, 3], 6)).toBeNull();
    expect(hintFromPoints([...WORTHS, 0, 1], [null, 2, 3, 4, 5, 6, 3, 1], 6)).not.toBeNull();
  });
});
