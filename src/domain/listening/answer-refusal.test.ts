import { expect, it } from 'vitest';
import type { SendAnswer, TrialDocument } from '#contracts/listening';
import { answerRefusal, type AskedTrial } from './answer-refusal';
import { isBreakDue } from './break-due';
import { slotsOf } from './trial-slots';

const PAIR: TrialDocument = { kind: 'pair', items: ['1', '2'], control: null };
type Answer = SendAnswer['answer'];
const ORDER: TrialDocument = { kind: 'order', items: ['1', '2', '3'], round: 1, isFinal: false };
const ABX: TrialDocument = { kind: 'abx', items: ['1', '2'], x: '2' };
const NAMES: TrialDocument = { kind: 'names', items: ['1', '2'] };
const RATINGS: TrialDocument = { kind: 'ratings', items: ['1', '2'], reference: '1' };

/** Everything heard, everything open. */
const asked = (trial: TrialDocument, change: Partial<AskedTrial> = {}): AskedTrial => ({
  test: { tiesAllowed: false },
  trial,
  isOpen: true,
  isAsked: true,
  delivered: Object.fromEntries(slotsOf(trial).map((slot) => [slot, 1])),
  ...change,
});
const refusal = (trial: TrialDocument, answer: Answer, change: Partial<AskedTrial> = {}, words = {}): string | null =>
  answerRefusal(asked(trial, change), { answer, words });
const A: Answer = { kind: 'pair', preferred: 'A' };

it('takes what fits', () => {
  expect(refusal(PAIR, A)).toBeNull();
  expect(refusal(PAIR, { kind: 'pair', preferred: null }, { test: { tiesAllowed: true } })).toBeNull();
  expect(refusal(ORDER, { kind: 'order', codes: ['C', 'A', 'B'] })).toBeNull();
  expect(refusal(ABX, { kind: 'abx', x: 'B' })).toBeNull();
  expect(refusal(NAMES, { kind: 'names', names: { A: '7', B: '8' } })).toBeNull();
  expect(refusal(RATINGS, { kind: 'ratings', ratings: { A: 40, B: 100 } })).toBeNull();
});

it('takes nothing of a closed test, of a question that is not asked, or before every clip was heard', () => {
  expect(refusal(PAIR, A, { isOpen: false })).toMatch(/closed/);
  expect(refusal(PAIR, A, { isAsked: false })).toMatch(/not open yet/);
  expect(refusal(PAIR, A, { delivered: { A: 3 } })).toBe('Listen to B first.');
  expect(refusal(PAIR, A, { delivered: {} })).toBe('Listen to A, B first.');
  // X and the reference are clips as any other.
  expect(refusal(ABX, { kind: 'abx', x: 'A' }, { delivered: { A: 1, B: 1 } })).toBe('Listen to X first.');
  expect(refusal(RATINGS, { kind: 'ratings', ratings: { A: 1, B: 2 } }, { delivered: { A: 1, B: 1 } })).toBe(
    'Listen to R first.',
  );
});

it.each<[string, TrialDocument, Answer, RegExp]>([
  ['of another kind', PAIR, { kind: 'abx', x: 'A' }, /another question/],
  ['without a decision', PAIR, { kind: 'pair', preferred: null }, /asks for a decision/],
  ['for a clip that was not offered', PAIR, { kind: 'pair', preferred: 'C' }, /not offered/],
  ['with one clip twice', ORDER, { kind: 'order', codes: ['A', 'A', 'B'] }, /placed, once/],
  ['with one clip missing', ORDER, { kind: 'order', codes: ['A', 'B'] }, /placed, once/],
  ['with an X of its own', ABX, { kind: 'abx', x: 'C' }, /one of the two/],
  ['with one name twice', NAMES, { kind: 'names', names: { A: '7', B: '7' } }, /name of its own/],
  ['with a name missing', NAMES, { kind: 'names', names: { A: '7' } }, /name of its own/],
  ['with a rating missing', RATINGS, { kind: 'ratings', ratings: { A: 40 } }, /needs a rating/],
])('refuses an answer %s', (_, trial, answer, words) => {
  expect(refusal(trial, answer)).toMatch(words);
});

it('refuses words for a clip that was not offered', () => {
  const said = { words: ['dull'], free: '' };
  expect(refusal(PAIR, A, {}, { B: said })).toBeNull();
  expect(refusal(PAIR, A, {}, { C: said })).toMatch(/not offered/);
});

it('offers a break each time that another stretch of listening is full', () => {
  expect(isBreakDue([], 20)).toBe(false);
  expect(isBreakDue([600, 599], 20)).toBe(false);
  expect(isBreakDue([600, 600], 20)).toBe(true);
  // Once only: the next answer is of the next stretch.
  expect(isBreakDue([600, 600, 30], 20)).toBe(false);
  expect(isBreakDue([600, 600, 600, 600], 20)).toBe(true);
});
