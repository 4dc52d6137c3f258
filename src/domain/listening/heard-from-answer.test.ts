import { expect, it } from 'vitest';
import { newTestSchema, type NewTestDraft, type TrialDocument } from '#contracts/listening';
import { heardFromAnswer, type HeardItem } from './heard-from-answer';

const test = (change: Partial<NewTestDraft> = {}) =>
  newTestSchema.parse({ name: 'T', design: 'pairs', takes: ['1', '2'], ...change });
const item = (id: string, change: Partial<HeardItem> = {}): HeardItem => ({
  id,
  specimenId: `s${id}`,
  role: 'unit',
  loudnessLufs: -23,
  ...change,
});
const ITEMS = [item('1', { loudnessLufs: -22.9 }), item('2', { loudnessLufs: -23.1 }), item('3')];
const PAIR: TrialDocument = { kind: 'pair', items: ['2', '1'], control: null };

it('a pair says which of the two was preferred, in the order in which they were offered', () => {
  const outcome = (preferred: string | null) =>
    heardFromAnswer(test({ tiesAllowed: true }), PAIR, { kind: 'pair', preferred }, ITEMS).map((f) => [
      f.specimens,
      f.outcome,
    ]);
  expect(outcome('A')).toEqual([[['s2', 's1'], 1]]);
  expect(outcome('B')).toEqual([[['s2', 's1'], 0]]);
  expect(outcome(null)).toEqual([[['s2', 's1'], 0.5]]);
});

it('goes with what could sway it: the place in the offer, what is louder, and a known yardstick', () => {
  const [fact] = heardFromAnswer(test(), PAIR, { kind: 'pair', preferred: 'A' }, ITEMS);
  expect(fact.circumstances.map(([place, lu, named]) => [place, Number(lu.toFixed(3)), named])).toEqual([
    [0, -0.1, 0],
    [1, 0.1, 0],
  ]);
  const sighted = heardFromAnswer(
    test({ sighted: true }),
    { kind: 'pair', items: ['1', '4'], control: null },
    { kind: 'pair', preferred: 'A' },
    [...ITEMS, item('4', { role: 'yardstick' })],
  );
  expect(sighted[0].circumstances.map((c) => c[2])).toEqual([0, 1]);
});

it('an order is heard best first; controls and guesses tell nothing', () => {
  const order: TrialDocument = { kind: 'order', items: ['1', '2', '3'], round: 1, isFinal: true };
  expect(heardFromAnswer(test(), order, { kind: 'order', codes: ['C', 'A', 'B'] }, ITEMS)[0].specimens).toEqual(['s3', 's1', 's2']); // prettier-ignore
  const control: TrialDocument = { kind: 'pair', items: ['1', '1'], control: 'same' };
  expect(heardFromAnswer(test(), control, { kind: 'pair', preferred: 'A' }, ITEMS)).toEqual([]);
  expect(heardFromAnswer(test(), { kind: 'abx', items: ['1', '2'], x: '1' }, { kind: 'abx', x: 'A' }, ITEMS)).toEqual([]); // prettier-ignore
});

it('ratings are an order, or all their pairs where some are equal, weighing as much as one order; anchors are none', () => {
  const trial = { kind: 'ratings', items: ['1', '2', '3', '9'], reference: '1' } as TrialDocument;
  const items = [...ITEMS, item('9', { role: 'anchor-low' as HeardItem['role'] })];
  const rated = (ratings: Record<string, number>) =>
    heardFromAnswer(test(), trial, { kind: 'ratings', ratings }, items);
  expect(rated({ A: 50, B: 80, C: 20, D: 5 })).toMatchObject([
    { specimens: ['s2', 's1', 's3'], outcome: null, weight: 1 },
  ]);
  const pairs = rated({ A: 50, B: 50, C: 20, D: 5 });
  expect(pairs.map((p) => [p.specimens.join('>'), p.outcome])).toEqual([
    ['s1>s2', 0.5],
    ['s1>s3', 1],
    ['s2>s3', 1],
  ]);
  expect(pairs.reduce((s, p) => s + p.weight, 0)).toBeCloseTo(2, 12);
});

it('a unit against itself tells nothing: two items may be of one unit that was merged', () => {
  const merged = [item('1'), item('2', { specimenId: 's1' }), item('3')];
  expect(heardFromAnswer(test(), PAIR, { kind: 'pair', preferred: 'A' }, merged)).toEqual([]);
  const order: TrialDocument = { kind: 'order', items: ['1', '2', '3'], round: 1, isFinal: true };
  const told = heardFromAnswer(test(), order, { kind: 'order', codes: ['B', 'C', 'A'] }, merged);
  expect(told.map((f) => [f.specimens, f.circumstances.map((c) => c[0])])).toEqual([
    [
      ['s1', 's3'],
      [1, 2],
    ],
  ]);
  expect(heardFromAnswer(test(), order, { kind: 'order', codes: ['B', 'A', 'C'] }, [...merged.slice(0, 2), item('3', { specimenId: 's1' })])).toEqual([]); // prettier-ignore
});
