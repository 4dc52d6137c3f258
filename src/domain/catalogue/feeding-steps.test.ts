import { expect, it } from 'vitest';
import { feedsFigure } from './feeding-steps';

const STEPS = [
  { id: 'without', role: 'speech', pair: null },
  { id: 'with', role: undefined, pair: { step: 'without', varies: 'booster' } },
  { id: 'silence', role: undefined, pair: null },
] as const;

it('a figure of pairs is fed by both halves, others by what their step is for', () => {
  const fed = (id: Parameters<typeof feedsFigure>[0]) =>
    STEPS.filter((s) => feedsFigure(id, s, STEPS)).map((s) => s.id);
  expect(fed('gainAdded')).toEqual(['without', 'with']);
  expect(fed('noiseReSpeechA')).toEqual(['without', 'silence']);
  expect(fed('t20')).toEqual([]);
});
