import { expect, it } from 'vitest';
import { share } from '../testing/studies/coverage';
import { shortPause } from '../testing/studies/noise';

// 400 pauses: 93 % is 18 below 95 % of the mean, 1.8 deviations of the count (√(400·0.95·0.05) = 4.4).
it('±2u of one pause of 0.95 s covers 93 to 99 %, white or like a room', async () => {
  for (const row of await shortPause(200)) {
    expect(share(row), row.figure).toBeGreaterThan(0.91);
    expect(share(row), row.figure).toBeLessThan(0.995);
  }
});
