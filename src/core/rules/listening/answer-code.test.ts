import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answerCode, answerCodesIn, readAnswerCode } from './answer-code';
import { CROCKFORD } from './crockford';
import { CODE_NAMES } from './code-names';
import { atLetter, lettersOf } from './letters';
import { openingCodeFrom, readOpeningCode } from './opening-code';

const LETTERS = lettersOf(CODE_NAMES);
const answer = fc.record({
  order: fc.shuffledSubarray(LETTERS, { minLength: 2 }),
  points: fc.dictionary(fc.constantFrom(...LETTERS), fc.integer({ min: 0, max: 100 }).map((n) => n / 10)), // prettier-ignore
  names: fc.dictionary(fc.constantFrom(...LETTERS), fc.integer({ min: 1, max: 12 })),
});

describe('the code of an answer', () => {
  it('comes back as it went, through large and small letters, and out of a text', () => {
    fc.assert(
      fc.property(answer, fc.boolean(), (said, isSmall) => {
        const code = answerCode('7f3a2c', said);
        expect(code).toMatch(/^SD1-[0-9A-Z.-]+$/);
        const text = `my answer is ${isSmall ? code.toLowerCase() : code}. Thanks!`;
        const [found] = answerCodesIn(text);
        expect(readAnswerCode(found)).toEqual({ kind: 'answer', pack: '7F3A2C', answer: said });
      }),
    );
  });

  it('finds a sign that was changed, left out, or swapped with the next one, in 99 of 100 cases at least', () => {
    let [harmed, found] = [0, 0];
    fc.assert(
      fc.property(answer, fc.nat(), fc.constantFrom('change', 'drop', 'swap'), (said, where, how) => {
        const code = answerCode('7F3A2C', said);
        const at = 4 + (where % (code.length - 5));
        const broken =
          how === 'drop' ? code.slice(0, at) + code.slice(at + 1)
          : how === 'swap' ? code.slice(0, at) + code[at + 1] + code[at] + code.slice(at + 2)
          : code.slice(0, at) + (code[at] === 'B' ? 'C' : 'B') + code.slice(at + 1); // prettier-ignore
        if (broken === code) return;
        harmed++;
        if (readAnswerCode(broken).kind === 'damaged') found++;
      }),
      { numRuns: 3000, seed: 20261127 },
    );
    expect(harmed).toBeGreaterThan(2000);
    expect(found / harmed).toBeGreaterThan(0.99);
  });

  it('refuses parts that say nothing known, though their check fits', () => {
    const withCheck = (body: string) => {
      for (const a of CROCKFORD)
        for (const b of CROCKFORD) {
          const read = readAnswerCode(`${body}-${a}${b}`);
          if (read.kind === 'answer' || !read.why.includes('signs')) return read;
        }
      throw new Error('no check fits');
    };
    for (const part of ['OAA', 'OAM', 'PA', 'PAX', 'NA', 'Q1', 'PA7.55'])
      expect(withCheck(`SD1-7F3A2C-${part}`)).toMatchObject({
        kind: 'damaged',
        why: expect.stringContaining(part) as string,
      });
    expect(withCheck('SD1-7F3A2C-OAB')).toMatchObject({ kind: 'answer' });
  });
});

describe('code names', () => {
  it('begin with the letters A to L, each with its own', () => {
    expect(CODE_NAMES.map((n) => n[0])).toEqual('ABCDEFGHIJKL'.split(''));
    expect(LETTERS.map((letter) => atLetter(CODE_NAMES, letter))).toEqual([...CODE_NAMES]);
    // One before A would be the last from the end.
    expect(['', 'M', 'a', 'AB', '@'].map((letter) => atLetter(CODE_NAMES, letter))).toEqual([null, null, null, null, null]); // prettier-ignore
  });
});

describe('the opening code', () => {
  it('has 26 signs for 128 bits, and is read however it was typed', () => {
    expect(openingCodeFrom(new Uint8Array(16))).toBe('00000-00000-00000-00000-00000-0');
    // All bits set: 128 bits are 25 whole groups of five and three more, which come first.
    expect(openingCodeFrom(new Uint8Array(16).fill(255))).toBe('7ZZZZ-ZZZZZ-ZZZZZ-ZZZZZ-ZZZZZ-Z');
    expect(readOpeningCode(' ooooo 0000l-00000-i0000-00000-0 ')).toBe('00000000010000010000000000'.slice(0, 26));
    expect(readOpeningCode('7ZZZZ')).toBeNull();
    expect(readOpeningCode('U'.repeat(26))).toBeNull();
    expect(() => openingCodeFrom(new Uint8Array(15))).toThrow(RangeError);
  });
});
