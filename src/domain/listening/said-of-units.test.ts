import { expect, it } from 'vitest';
import type { TrialDocument } from '#contracts/listening';
import { saidOfUnits } from './said-of-units';

const ITEMS = [
  { id: '1', role: 'unit', specimen_id: '11' },
  { id: '2', role: 'yardstick', specimen_id: '12' },
  { id: '9', role: 'known-worse', specimen_id: '11' },
] as const;
const said = (free: string) => ({ words: [], free });
const WORDS = { A: said('boxy'), B: said('clear'), C: said('dull') };

it('are said of the unit behind the letter; of a copy without highs they are said of nobody', () => {
  const order: TrialDocument = { kind: 'order', items: ['2', '9', '1'], round: 1, isFinal: false };
  expect(saidOfUnits(order, ITEMS, WORDS)).toEqual([
    { specimenId: '12', said: said('boxy') },
    { specimenId: '11', said: said('dull') },
  ]);
});

it('are said of nobody where a clip was held against itself, or the letter was not offered', () => {
  const pair = (control: 'same' | 'worse' | null): TrialDocument => ({ kind: 'pair', items: ['1', '2'], control });
  expect(saidOfUnits(pair('same'), ITEMS, WORDS)).toEqual([]);
  expect(saidOfUnits(pair('worse'), ITEMS, WORDS)).toEqual([]);
  expect(saidOfUnits(pair(null), ITEMS, WORDS).map((w) => w.specimenId)).toEqual(['11', '12']);
});
