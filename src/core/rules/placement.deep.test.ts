import { expect, it } from 'vitest';
import { questionsOf, rightStrata } from '../testing/placing-runs';

it('needs at most half the questions of random pairing, for the same interval', () => {
  const { chosen, random } = questionsOf(8);
  expect(chosen).toBeGreaterThan(0);
  expect(chosen).toBeLessThanOrEqual(random / 2);
});

// 40 runs: at 95 % right, 36 or more come about with 95 %.
it('puts a unit into the right stratum in at least nine runs of ten', () => {
  expect(rightStrata(40)).toBeGreaterThanOrEqual(36);
});
