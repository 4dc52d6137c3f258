import { expect, it } from 'vitest';
import { share } from '../testing/studies/coverage';
import { responseStudy, roomStudy } from '../testing/studies/sweeps';

// 40 trials: 95 % of them are 38, with a deviation of 1.4.
it('±2u of limits, slope and distortion hold what was put in', () => {
  for (const row of responseStudy(40)) {
    expect(row.given, row.figure).toBe(40);
    expect(row.inside, row.figure).toBeGreaterThanOrEqual(35);
  }
});

// 60 decays: 95 % are 57, with a deviation of 1.7; the law of ISO 3382-2 is on the safe side.
it('±2u of T20, T30, EDT and C50 hold the decay', () => {
  for (const row of roomStudy(60)) expect(share(row), row.figure).toBeGreaterThan(0.88);
});
