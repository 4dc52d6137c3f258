import { describe, expect, it } from 'vitest';
import { readCurrency, readList, readText } from './read-text';

describe('words that are typed', () => {
  it('stay as they are, blanks and all', () => {
    expect(readText(' two  words ', 40)).toEqual({ isUnderstood: true, value: ' two  words ' });
    expect(readText('', 40)).toEqual({ isUnderstood: true, value: null });
    expect(readText('x'.repeat(5000), 0)).toEqual({ isUnderstood: true, value: 'x'.repeat(5000) });
  });

  it('are refused, not cut, where they are longer than what is kept', () => {
    expect(readText('x'.repeat(40), 40)).toMatchObject({ isUnderstood: true });
    expect(readText('x'.repeat(41), 40)).toEqual({
      isUnderstood: false,
      why: '41 characters are written; 40 are kept. Nothing is cut: shorten it.',
    });
  });
});

describe('a list that is typed', () => {
  it('is parted by commas, without blanks, gaps and repetitions', () => {
    expect(readList(' pop filter,, windscreen , pop filter,')).toEqual({
      isUnderstood: true,
      value: ['pop filter', 'windscreen'],
    });
    expect(readList(' , ')).toEqual({ isUnderstood: true, value: null });
  });
});

describe('a currency that is typed', () => {
  it('is three letters in either case', () => {
    expect(readCurrency(' eur ')).toEqual({ isUnderstood: true, value: 'EUR' });
    expect(readCurrency('')).toEqual({ isUnderstood: true, value: null });
  });

  it('is refused where it is anything else', () => {
    for (const text of ['€', 'EU', 'Euro', 'E1R'])
      expect(readCurrency(text), text).toMatchObject({
        isUnderstood: false,
        why: expect.stringContaining(text) as string,
      });
  });
});
