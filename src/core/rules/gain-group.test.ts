import { expect, it } from 'vitest';
import { gainGroup, type GainStep } from './gain-group';

const as = (step: string, byDb = 0) => ({ rule: 'as-step', step, byDb }) as const;
const STEPS: readonly GainStep[] = [
  { id: 'speech', gain: { rule: 'peaks', lowDbfs: -12, highDbfs: -9 } },
  { id: 'silence', gain: as('speech') },
  { id: 'close', gain: as('silence', -12) },
  { id: 'closer', gain: as('close', -6) },
  { id: 'odd', gain: as('gone', 3) },
  { id: 'free', gain: null },
];

it('goes back to the step that sets the gain, with all that is turned on the way', () => {
  expect(STEPS.map((s) => gainGroup(s.id, STEPS))).toEqual([
    { root: 'speech', byDb: 0 },
    { root: 'speech', byDb: 0 },
    { root: 'speech', byDb: -12 },
    { root: 'speech', byDb: -18 },
    { root: '', byDb: 3 },
    { root: '', byDb: 0 },
  ]);
  expect(gainGroup(null, STEPS)).toEqual({ root: '', byDb: 0 });
});
