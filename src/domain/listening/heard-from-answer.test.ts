import { describe, expect, it } from 'vitest';
import { newTestSchema, type Answer, type NewTestDraft, type TrialDocument } from '#contracts/listening';
import { heardFromAnswer, isRight, orderOf, type HeardItem } from './heard-from-answer';

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

describe('what came back from a pack', () => {
  const BEST: TrialDocument = { kind: 'best', items: ['1', '2', '3'] };
  const VOTES: TrialDocument = { kind: 'votes', items: ['1', '2', '3'] };
  const POINTS: TrialDocument = { kind: 'points', items: ['1', '2', '3'] };
  const told = (trial: TrialDocument, answer: Answer, items = ITEMS) =>
    heardFromAnswer(test(), trial, answer, items).map((f) => [
      f.specimens.join('>'),
      f.outcome,
      f.tiesAllowed,
      f.weight,
    ]);

  it('a favourite is before all others, and as much as one choice', () => {
    expect(told(BEST, { kind: 'best', best: 'B' })).toEqual([
      ['s2>s1', 1, false, 1 / 2],
      ['s2>s3', 1, false, 1 / 2],
    ]);
    expect(told(BEST, { kind: 'best', best: 'D' })).toEqual([]);
  });

  it('a favourite that is the copy without highs tells nothing, and is no rival either', () => {
    const items = [...ITEMS.slice(0, 2), item('3', { role: 'known-worse' })];
    expect(told(BEST, { kind: 'best', best: 'C' }, items)).toEqual([]);
    expect(told(BEST, { kind: 'best', best: 'A' }, items)).toEqual([['s1>s2', 1, false, 1]]);
  });

  it('votes are as many favourites; who was not up for a vote was not beaten', () => {
    expect(told(VOTES, { kind: 'votes', votes: { A: 6, B: 0, C: 2 } })).toEqual([
      ['s1>s2', 1, false, 3],
      ['s1>s3', 1, false, 3],
      ['s3>s1', 1, false, 1],
      ['s3>s2', 1, false, 1],
    ]);
    expect(told(VOTES, { kind: 'votes', votes: { A: 5, C: 0 } })).toEqual([['s1>s3', 1, false, 5]]);
  });

  it('points of some clips are an order of those; what was not named was not rated', () => {
    expect(told(POINTS, { kind: 'points', points: { A: 3, C: 8 } })).toEqual([['s3>s1', null, false, 1]]);
    expect(told(POINTS, { kind: 'points', points: { A: 3 } })).toEqual([]);
    expect(told(POINTS, { kind: 'points', points: { A: 3, B: 3 } })).toEqual([['s1>s2', 0.5, true, 1]]);
  });
});

describe('one that was put into a table', () => {
  const PLACE: TrialDocument = { kind: 'place', items: ['1', '2', '3'], round: 1 };
  const at = (place: number) => heardFromAnswer(test(), PLACE, { kind: 'place', at: place }, ITEMS).map((f) => [f.specimens.join('>'), f.outcome, f.weight]); // prettier-ignore

  it('is worse than the one before and better than the next; the table was told already', () => {
    expect(at(0)).toEqual([['s3>s1', 1, 1]]);
    expect(at(1)).toEqual([
      ['s1>s3', 1, 1],
      ['s3>s2', 1, 1],
    ]);
    expect(at(2)).toEqual([['s2>s3', 1, 1]]);
  });

  it('stands in it', () => {
    const order = (place: number) => orderOf(PLACE, { kind: 'place', at: place });
    expect([0, 1, 2].map(order)).toEqual([
      ['3', '1', '2'],
      ['1', '3', '2'],
      ['1', '2', '3'],
    ]);
  });
});

it('an answer of another kind than its question tells nothing, orders nothing, and is neither right nor wrong', () => {
  const questions: TrialDocument[] = [
    PAIR,
    { kind: 'order', items: ['1', '2'], round: 1, isFinal: false },
    { kind: 'abx', items: ['1', '2'], x: '1' },
    { kind: 'ratings', items: ['1', '2'], reference: '1' },
    { kind: 'place', items: ['1', '2'], round: 1 },
    { kind: 'best', items: ['1', '2'] },
    { kind: 'votes', items: ['1', '2'] },
    { kind: 'points', items: ['1', '2'] },
  ];
  const answers: Answer[] = [
    { kind: 'pair', preferred: 'A' },
    { kind: 'order', codes: ['A', 'B'] },
    { kind: 'abx', x: 'A' },
    { kind: 'ratings', ratings: { A: 90, B: 10 } },
    { kind: 'place', at: 0 },
    { kind: 'best', best: 'A' },
    { kind: 'votes', votes: { A: 1, B: 0 } },
    { kind: 'points', points: { A: 2, B: 1 } },
  ];
  for (const trial of questions)
    for (const answer of answers) {
      const isRating = (kind: string): boolean => kind === 'ratings' || kind === 'points';
      const fits = trial.kind === answer.kind || (isRating(trial.kind) && isRating(answer.kind));
      const told = heardFromAnswer(test(), trial, answer, ITEMS).length > 0;
      expect(told, `${trial.kind} / ${answer.kind}`).toBe(fits && trial.kind !== 'abx');
      expect(isRight(trial, answer), `${trial.kind} / ${answer.kind}`).toBe(trial.kind === 'abx' && fits ? true : null);
    }
});

it('copies and anchors stand in no order', () => {
  const trial: TrialDocument = { kind: 'order', items: ['1', '2', '3'], round: 1, isFinal: true };
  const items = [...ITEMS.slice(0, 2), item('3', { role: 'anchor-low' })];
  const told = (codes: string[], among = items) =>
    heardFromAnswer(test(), trial, { kind: 'order', codes }, among).map((f) => [f.specimens.join('>'), f.tiesAllowed]);
  expect(told(['C', 'B', 'A'])).toEqual([['s2>s1', false]]);
  expect(told(['A', 'C'])).toEqual([]);
});

it('levels that nobody knows sway nothing; anchors are no part of the mean', () => {
  const levels = (items: readonly HeardItem[]) =>
    heardFromAnswer(test(), PAIR, { kind: 'pair', preferred: 'A' }, items)[0].circumstances.map((c) => Number(c[1].toFixed(3))); // prettier-ignore
  expect(levels([item('1', { loudnessLufs: null }), item('2', { loudnessLufs: null })])).toEqual([0, 0]);
  expect(levels([item('1', { loudnessLufs: null }), item('2', { loudnessLufs: -20 }), item('3', { loudnessLufs: -22 })])).toEqual([1, 0]); // prettier-ignore
  expect(levels([item('1', { loudnessLufs: -22 }), item('2', { loudnessLufs: -24 }), item('3', { role: 'anchor-mid', loudnessLufs: -50 })])).toEqual([-1, 1]); // prettier-ignore
});
