import { expect, it } from 'vitest';
import { gainAtStep } from './files';

const PEAKS = { rule: 'peaks', lowDbfs: -12, highDbfs: -9 } as const;
const STEPS = [
  { id: 'without', gain: PEAKS },
  { id: 'close', gain: { rule: 'as-step', step: 'without', byDb: -12 } },
  { id: 'with', gain: PEAKS },
  { id: 'free', gain: null },
] as const;
const at = (gain: Parameters<typeof gainAtStep>[0]) => STEPS.map((s) => gainAtStep(gain, s.id, STEPS));

it('the gain of the passage is that of the steps that go back to it, and of those that say nothing', () => {
  expect(at({ kind: 'dB', db: 40 }).map((g) => g?.gainDb)).toEqual([40, 28, undefined, 40]);
  // Where a dial ends below 0 dB is not known.
  expect(at({ kind: 'dB', db: 5 })[1]).toEqual({ gainDb: null, dial: '' });
  expect(gainAtStep({ kind: 'dB', db: 40 }, null, STEPS)?.gainDb).toBe(40);
});

it('of a dial a step that is turned has none that is known', () => {
  expect(at({ kind: 'dial', position: '7' }).map((g) => g?.dial)).toEqual(['7', '', undefined, '7']);
  expect(at(null)[0]).toEqual({ gainDb: null, dial: '' });
});
