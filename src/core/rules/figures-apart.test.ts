import { expect, it } from 'vitest';
import { isBetterBeyondDoubt, spreadOf } from './figures-apart';
import { doLinesMatter } from './lines-that-matter';

type Bound = 'exact' | 'at-most' | 'at-least';
const figure = (value: number | null, uncertainty: number | null = 1, bound: Bound = 'exact') => ({ value, uncertainty, bound, notMeasured: null, remark: null }); // prettier-ignore

it('a figure is better where the difference is more than two deviations of both together', () => {
  // √(1² + 1²) twice is 2.83.
  expect([2.8, 2.9].map((by) => isBetterBeyondDoubt(figure(by), figure(0), 'higher'))).toEqual([false, true]);
  expect([-2.8, -2.9].map((by) => isBetterBeyondDoubt(figure(by), figure(0), 'lower'))).toEqual([false, true]);
  expect(isBetterBeyondDoubt(figure(-9), figure(0), 'higher')).toBe(false);
  // Scatter between readings counts beside the uncertainty of one: √(3² + 4²) = 5, and so twice √50.
  expect(spreadOf({ uncertainty: 3, between: 4 })).toBe(5);
  expect(spreadOf({ uncertainty: null })).toBe(0);
  const scattered = (value: number) => ({ ...figure(value, 3), between: 4 });
  expect([14.1, 14.2].map((by) => isBetterBeyondDoubt(scattered(by), scattered(0), 'higher'))).toEqual([false, true]);
});

it('nothing is told of figures that are not there, or of which nobody knows how sure they are', () => {
  expect(isBetterBeyondDoubt(figure(null), figure(0), 'higher')).toBe(false);
  expect(isBetterBeyondDoubt(figure(9), figure(null), 'higher')).toBe(false);
  expect(isBetterBeyondDoubt(figure(9, null), figure(0, null), 'higher')).toBe(false);
  expect(isBetterBeyondDoubt(figure(9, null), figure(0, 1), 'higher')).toBe(true);
});

it('a limit counts where it is on the right side', () => {
  const better = (a: Bound, b: Bound, way: 'higher' | 'lower') =>
    isBetterBeyondDoubt(figure(way === 'higher' ? 9 : -9, 1, a), figure(0, 1, b), way);
  // At least 9 is more than 0, and more than what is 0 at most.
  expect([better('at-least', 'exact', 'higher'), better('at-least', 'at-most', 'higher')]).toEqual([true, true]);
  expect([better('at-most', 'exact', 'higher'), better('exact', 'at-least', 'higher')]).toEqual([false, false]);
  expect([better('at-most', 'exact', 'lower'), better('at-most', 'at-least', 'lower')]).toEqual([true, true]);
  expect([better('at-least', 'exact', 'lower'), better('exact', 'at-most', 'lower')]).toEqual([false, false]);
});

it('lines matter that stand less than 20 dB under the noise; where either is not known, nothing is said', () => {
  expect([-89.9, -90, -90.1].map((lines) => doLinesMatter(lines, -70))).toEqual([true, false, false]);
  expect([doLinesMatter(null, -70), doLinesMatter(-70, null), doLinesMatter(null, null)]).toEqual([
    false,
    false,
    false,
  ]);
  // Zero is a level, not nothing.
  expect([doLinesMatter(0, 0), doLinesMatter(null, 30)]).toEqual([true, false]);
});
