import { describe, expect, it } from 'vitest';
import { newTestSchema, type NewTestDraft, type TrialDocument } from '#contracts/listening';
import { answeredTrial, sittingState, type SittingFacts } from './sitting-state';
import type { ItemRow } from './test-item';

const test = (change: Partial<NewTestDraft> = {}) =>
  newTestSchema.parse({ name: 'T', design: 'pairs', takes: ['1', '2'], ...change });
const item = (id: string, name: string, role: ItemRow['role'] = 'unit'): ItemRow => ({
  ...{ id, name, role, test_id: '1', ordinal: 0, specimen_id: `unit ${id}`, take_id: id },
  ...{ gain_db: 0, loudness_lufs: -23 },
});
const ITEMS = [item('1', 'Purser'), item('2', 'Bosun'), item('9', 'Purser', 'known-worse')];
const FAMILIAR: TrialDocument = { kind: 'familiarise', items: ['1', '2'] };
const PAIR: TrialDocument = { kind: 'pair', items: ['2', '1'], control: null };
const kept = (ordinal: number, document: TrialDocument, answer: unknown = null, seconds: number | null = null) => ({
  ...{ ordinal, document, answer, seconds },
});
const state = (trials: SittingFacts['trials'], change: Partial<SittingFacts> = {}) =>
  sittingState({
    sitting: { listener: 'Ash', about: {}, headphones: {}, finished_at: null },
    test: test(),
    isOpen: true,
    isRevealed: false,
    items: ITEMS,
    trials,
    ...change,
  });
const asked = (trial: TrialDocument, change: Partial<SittingFacts> = {}) => state([kept(3, trial)], change);

describe('what a listener may know', () => {
  it('is the letters and the question of the first trial without an answer, and never a name or an item', () => {
    const told = state([kept(0, FAMILIAR, { kind: 'familiarise' }, 30), kept(1, PAIR), kept(2, PAIR)]);
    expect(told).toMatchObject({ done: 1, total: 3, isClosed: false, trial: { ordinal: 1, codes: ['A', 'B'] } });
    const text = JSON.stringify(told);
    for (const secret of ['Purser', 'Bosun', 'unit 1', '"items"', 'known-worse', 'control'])
      expect(text).not.toContain(secret);
  });

  it('is the same for a pair that checks the listener as for any other', () => {
    const same: TrialDocument = { kind: 'pair', items: ['1', '1'], control: 'same' };
    const open = { test: test({ tiesAllowed: true, askWords: true }) };
    expect(asked(same, open)).toEqual(asked(PAIR, open));
    expect(asked(PAIR, open).trial).toMatchObject({ tiesAllowed: true, askWords: true });
    expect(asked(PAIR, { test: test({ tiesAllowed: false }) }).trial).toMatchObject({ tiesAllowed: false });
  });

  it('are the names in the order of the alphabet where they are to be guessed, and in no other question', () => {
    const names: TrialDocument = { kind: 'names', items: ['1', '2'] };
    expect(asked(names).trial?.names).toEqual([
      { id: 'unit 2', name: 'Bosun' },
      { id: 'unit 1', name: 'Purser' },
    ]);
    expect(asked(PAIR).trial?.names).toEqual([]);
  });

  it('are the names behind the letters in a sighted test alone, in the order of the letters', () => {
    expect(asked(PAIR, { test: test({ sighted: true }) }).trial?.labels).toEqual(['Bosun', 'Purser']);
    expect(asked(PAIR).trial?.labels).toEqual([]);
  });

  it('words are asked of what is compared, where the test asks for words', () => {
    const words = { test: test({ askWords: true }) };
    const order: TrialDocument = { kind: 'order', items: ['1', '2'], round: 1, isFinal: true };
    const abx: TrialDocument = { kind: 'abx', items: ['1', '2'], x: '2' };
    expect([order, PAIR, abx, FAMILIAR].map((t) => asked(t, words).trial?.askWords)).toEqual([
      true,
      true,
      false,
      false,
    ]);
    expect(asked(order, { test: test({ askWords: false }) }).trial).toMatchObject({ askWords: false, isFinal: true });
    expect(asked(PAIR).trial?.isFinal).toBe(false);
  });

  it('a rating has an open reference, and says so', () => {
    const ratings: TrialDocument = { kind: 'ratings', items: ['1', '2'], reference: '1' };
    expect(asked(ratings)).toMatchObject({ trial: { reference: 'R', kind: 'ratings' } });
    expect(asked(ratings).question).toContain('held against the reference');
    expect(asked(PAIR).trial?.reference).toBeNull();
  });

  it('each kind of question is put in its own words', () => {
    const of = (trial: TrialDocument) => asked(trial).question;
    expect(of(FAMILIAR)).toContain('Listen to all');
    expect(of({ kind: 'abx', items: ['1', '2'], x: '1' })).toBe('Is X the clip A or the clip B?');
    expect(of({ kind: 'names', items: ['1', '2'] })).toBe('Which clip is which?');
    expect(of({ kind: 'order', items: ['1', '2'], round: 1, isFinal: false })).toBe(`${of(PAIR)} Put them in order.`);
  });
});

describe('what a listener is asked before', () => {
  const sitting = { listener: 'Ash', about: null, headphones: null, finished_at: null };
  it('is asked while there is something to hear', () => {
    expect(asked(PAIR, { sitting })).toMatchObject({ needsAbout: true, needsHeadphones: true });
    expect(asked(PAIR)).toMatchObject({ needsAbout: false, needsHeadphones: false });
    const answer = { kind: 'pair', preferred: 'A' };
    expect(state([kept(0, PAIR, answer)], { sitting })).toMatchObject({ needsAbout: false, needsHeadphones: false });
  });
});

it('a closed test asks nothing, and says how far somebody came', () => {
  const answer = { kind: 'pair', preferred: 'A' };
  const told = state([kept(0, PAIR, answer), kept(1, PAIR)], { isOpen: false, isRevealed: true });
  expect(told).toMatchObject({ trial: null, isClosed: true, isRevealed: true, done: 1, isFinished: false });
});

it('a break is due by the time of the answers, in their order', () => {
  const answer = { kind: 'pair', preferred: 'A' };
  const long = test({ breakAfterMin: 5 });
  expect(state([kept(0, PAIR, answer, 200), kept(1, PAIR, answer, 120), kept(2, PAIR)], { test: long }).breakDue).toBe(true); // prettier-ignore
  expect(state([kept(0, PAIR, answer, 310), kept(1, PAIR, answer, 20), kept(2, PAIR)], { test: long }).breakDue).toBe(false); // prettier-ignore
});

it('an answered trial tells its order and whether it was right', () => {
  expect(answeredTrial({ document: PAIR, answer: { kind: 'pair', preferred: 'A' } })).toMatchObject({ isRight: null });
  const abx: TrialDocument = { kind: 'abx', items: ['1', '2'], x: '2' };
  expect(answeredTrial({ document: abx, answer: { kind: 'abx', x: 'B' } }).isRight).toBe(true);
  expect(answeredTrial({ document: abx, answer: { kind: 'abx', x: 'A' } }).isRight).toBe(false);
  const order: TrialDocument = { kind: 'order', items: ['1', '2'], round: 1, isFinal: false };
  expect(answeredTrial({ document: order, answer: { kind: 'order', codes: ['B', 'A'] } }).order).toEqual(['2', '1']);
});
