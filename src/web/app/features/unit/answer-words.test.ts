import { describe, expect, it } from 'vitest';
import type { UnitAnswer } from '#contracts/unit-answer';
import { answerWords, sourceWords } from './answer-words';

const answer = (change: Partial<UnitAnswer>): UnitAnswer => ({
  id: '1', day: '2026-05-02', source: 'test', test: 'Spring', attribute: 'preference', listener: 'Nell',
  names: ['Purser', 'Bosun'], outcome: 1, sighted: false, isLeftOut: false, ...change,
}); // prettier-ignore

describe('an answer in words', () => {
  it('names the preferred one first, whichever was offered first', () => {
    expect(answerWords(answer({}))).toBe('Purser before Bosun');
    expect(answerWords(answer({ outcome: 0 }))).toBe('Bosun before Purser');
    expect(answerWords(answer({ outcome: 0.5 }))).toBe('Purser and Bosun alike');
    expect(answerWords(answer({ outcome: null, names: ['Purser', 'Bosun', 'Cooper'] }))).toBe('Purser, then Bosun, then Cooper'); // prettier-ignore
    expect(answerWords(answer({ isLeftOut: true }))).toBe('Purser before Bosun — left out');
  });

  it('says where it comes from', () => {
    expect(sourceWords(answer({}))).toBe('test “Spring” · Nell · preference');
    expect(sourceWords(answer({ source: 'import', test: null, listener: null, sighted: true }))).toBe(
      'from a file · nobody named · preference · with names in sight',
    );
  });
});
