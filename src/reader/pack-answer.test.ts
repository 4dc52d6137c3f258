import { parse } from 'csv-parse/sync';
import { describe, expect, it } from 'vitest';
import { readAnswerCode } from '#core/rules/listening/answer-code';
import { answerCsv, moved, saidAnswer, type PackDraft } from './pack-answer';

const DRAFT: PackDraft = { order: ['B', 'A', 'C'], isOrdered: false, points: {}, names: {} };

describe('what was said', () => {
  it('is nothing until something is meant: the order that stands there by chance is none', () => {
    expect(saidAnswer(DRAFT, '7F3A2C')).toEqual({ kind: 'nothing' });
    expect(saidAnswer({ ...DRAFT, points: { A: ' ' }, names: { A: 0, B: 0 } }, '7F3A2C')).toEqual({ kind: 'nothing' });
    const said = saidAnswer({ ...DRAFT, isOrdered: true }, '7F3A2C');
    expect(said).toMatchObject({ kind: 'answer', answer: { order: ['B', 'A', 'C'] } });
    expect(said.kind === 'answer' && readAnswerCode(said.code)).toMatchObject({ kind: 'answer', answer: { order: ['B', 'A', 'C'] } }); // prettier-ignore
  });

  it('has points of either sign, and refuses what is none', () => {
    expect(saidAnswer({ ...DRAFT, points: { A: '7,5', B: '10', C: '' } }, '7F3A2C')).toMatchObject({ answer: { points: { A: 7.5, B: 10 } } }); // prettier-ignore
    for (const typed of ['11', '10.5', '7.55', '-1', 'seven', '1e1'])
      expect(saidAnswer({ ...DRAFT, points: { A: typed } }, '7F3A2C'), typed).toMatchObject({ kind: 'fault', words: expect.stringContaining('A:') as string }); // prettier-ignore
  });

  it('has names for all clips or for none, each once', () => {
    expect(saidAnswer({ ...DRAFT, names: { A: 1, B: 0, C: 0 } }, '7F3A2C')).toMatchObject({ kind: 'fault', words: expect.stringContaining('1 of 3') as string }); // prettier-ignore
    expect(saidAnswer({ ...DRAFT, names: { A: 1, B: 1, C: 2 } }, '7F3A2C')).toMatchObject({ kind: 'fault', words: 'One name stands at two clips.' }); // prettier-ignore
    expect(saidAnswer({ ...DRAFT, names: { A: 3, B: 1, C: 2 } }, '7F3A2C')).toMatchObject({ answer: { names: { A: 3, B: 1, C: 2 } } }); // prettier-ignore
  });

  it('moves up and down, and no further than the ends', () => {
    expect(moved(['A', 'B', 'C'], 'B', -1)).toEqual(['B', 'A', 'C']);
    expect(moved(['A', 'B', 'C'], 'B', 1)).toEqual(['A', 'C', 'B']);
    expect(moved(['A', 'B', 'C'], 'A', -1)).toEqual(['A', 'B', 'C']);
    expect(moved(['A', 'B', 'C'], 'C', 1)).toEqual(['A', 'B', 'C']);
    expect(moved(['A', 'B', 'C'], 'Q', 1)).toEqual(['A', 'B', 'C']);
  });

  it('is a table that a reader of CSV reads, whatever the listener is called', () => {
    const of = { listener: 'Ines "the ear", Duin', tag: '7F3A2C', clips: [{ letter: 'A', name: 'Alder' }, { letter: 'B', name: 'Birch' }], names: ['Thole, Quiet', 'Wren'] }; // prettier-ignore
    const csv = answerCsv({ order: ['B', 'A'], points: { A: 7.5 }, names: { A: 1, B: 2 } }, of);
    expect(parse(csv, { columns: true })).toEqual([
      { listener: of.listener, clip: 'Alder', place: '2', points: '7.5', guess: 'Thole, Quiet', pack: '7F3A2C' },
      { listener: of.listener, clip: 'Birch', place: '1', points: '', guess: 'Wren', pack: '7F3A2C' },
    ]);
  });
});
