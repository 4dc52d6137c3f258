import { describe, expect, it } from 'vitest';
import { fittedStep, stepsOfTheUnitAlone } from './paired-steps';

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

describe('the half that is made with the part', () => {
  const step = (id: string, title = id, accessories: string[] = []) => ({ id, title, accessories, pair: null });

  it.each([
    ['uses more accessories', step('b', 'b', ['shield']), step('a'), 'b'],
    ['uses more accessories, whatever it is called', step('without', 'x', ['shield']), step('a'), 'without'],
    ['names its other half', step('with'), step('plain'), 'with'],
    ['is not the one that is called bare', step('booster-off'), step('booster'), 'booster'],
    ['is not the one whose title says so', step('b', 'Bare'), step('a'), 'a'],
    ['may be called "offset"', step('offset'), step('a'), 'offset'],
  ])('%s', (_, one, other, fitted) => {
    expect(fittedStep(one, other).id).toBe(fitted);
  });
});
