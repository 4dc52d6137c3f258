import { describe, expect, it } from 'vitest';
import { barShare, levelWord } from './level-scale';

describe('the level bar', () => {
  it('places decibels evenly from −60 to 0', () => {
    expect([-90, -60, -30, 0, 3, -Infinity].map(barShare)).toEqual([0, 0, 0.5, 1, 1, 0]);
  });
  it.each([
    [-10, 0, 'in the window'],
    [-13, 0, 'too soft'],
    [-8, 0, 'too loud'],
    [-10, 1, 'clipped'],
    [-Infinity, 0, 'nothing'],
  ])('%d dBFS with %i clipped runs is %s', (peak, clipped, word) => {
    expect(levelWord(peak, { lowDbfs: -12, highDbfs: -9 }, clipped)).toBe(word);
  });
  it('without a window only knows the end of the scale', () => {
    expect([levelWord(-20, null, 0), levelWord(-0.5, null, 0)]).toEqual(['level', 'no room left']);
  });
});
