import { describe, expect, it } from 'vitest';
import { stepsOfTheUnitAlone } from './paired-steps';

const STEPS = [
  { id: 'without', pair: null },
  { id: 'with', pair: { step: 'without' } },
  { id: 'noise', pair: null },
];

describe('takes that say something of the unit by itself', () => {
  it('are none of the halves of a pair, for gear that is heard through another unit', () => {
    expect([...stepsOfTheUnitAlone(STEPS, true)]).toEqual(['noise']);
    expect([...stepsOfTheUnitAlone(STEPS.slice(0, 2), true)]).toEqual([]);
  });

  it('are the half without anything, for gear that makes its own sound', () => {
    expect([...stepsOfTheUnitAlone(STEPS, false)]).toEqual(['without', 'noise']);
  });
});
