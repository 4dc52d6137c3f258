import { describe, expect, it } from 'vitest';
import { pairsOfRun } from './pairs-of-run';

const step = (id: string, pair: string | null = null, accessories: string[] = []) => ({
  id,
  title: id,
  accessories,
  pair: pair === null ? null : { step: pair, varies: 'booster' },
});
const take = (id: string, step: string, settings: Record<string, string | boolean> = {}) => ({ id, step, settings });
const STEPS = [step('without'), step('with', 'without', ['booster']), step('alone')];
const ids = (takes: Parameters<typeof pairsOfRun>[1]) =>
  pairsOfRun(STEPS, takes as ReturnType<typeof take>[]).map((p) => [p.fitted.id, p.without.id, p.setting]);

describe('pairs of a run', () => {
  it('are the last takes of both halves', () => {
    expect(ids([take('a', 'without'), take('b', 'with'), take('c', 'without'), take('d', 'with'), take('e', 'alone')])).toEqual([['d', 'c', null]]); // prettier-ignore
  });

  it('are one for each setting of the switches', () => {
    expect(
      ids([
        take('a', 'without', { phantom: true }),
        take('b', 'with', { phantom: true, lowCut: '80 Hz' }),
        take('c', 'with', { phantom: true }),
        take('d', 'with', { phantom: true, lowCut: '80 Hz' }),
      ]),
    ).toEqual([
      ['d', 'a', 'low cut 80 Hz'],
      ['c', 'a', null],
    ]);
  });

  it('are none where a half is missing, or the protocol lacks the step', () => {
    expect(ids([take('b', 'with')])).toEqual([]);
    expect(pairsOfRun([step('with', 'gone')], [take('a', 'with')])).toEqual([]);
  });
});
