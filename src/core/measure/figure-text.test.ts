import { describe, expect, it } from 'vitest';
import { decimalsFor, figureText, formatNumber, plusMinus } from './figure-text';

describe('a number for people', () => {
  it('has a true minus, but nothing less than nothing', () => {
    expect([formatNumber(-1.25, 1), formatNumber(-0.04, 1), formatNumber(-0.4, 0), formatNumber(0.05, 2)]).toEqual(['−1.3', '0.0', '0', '0.05']); // prettier-ignore
    expect(formatNumber(-10, 1)).toBe('−10.0');
  });

  it('has a ± that is never nothing, unless it was given by hand', () => {
    expect([plusMinus(0.42, 1), plusMinus(0.02, 1), plusMinus(0, 1), plusMinus(3.4, 0), plusMinus(0.2, 0)]).toEqual(['±0.4', '±0.1', '±0', '±3', '±1']); // prettier-ignore
  });

  it('keeps one digit of its uncertainty, two where that begins with a one (JCGM 100:2008 7.2.6)', () => {
    const decimals = (u: number) => decimalsFor(u, 3);
    expect([0.1, 0.14, 0.2, 0.9, 1, 1.9, 2, 9, 10, 19, 20, 300].map(decimals)).toEqual([2, 2, 1, 1, 1, 1, 0, 0, 0, 0, -1, -2]); // prettier-ignore
    expect([decimalsFor(0.001, 1), decimalsFor(0.3, 0)]).toEqual([1, 0]);
    // 0.3 − 0.1 comes out a little less than two tenths.
    expect(decimalsFor(0.3 - 0.1, 3)).toBe(1);
  });
});

describe('a figure for people', () => {
  it('stands with its ± and its unit', () => {
    expect(figureText('silenceRmsA', { value: -73.46, uncertainty: 0.42 })).toEqual({ value: '−73.5', spread: '±0.4', another: '', unit: 'dBFS(A)' }); // prettier-ignore
    expect(figureText('silenceRmsA', { value: -73.46, uncertainty: 2.4 })).toMatchObject({
      value: '−73',
      spread: '±2',
    });
    expect(figureText('silenceRmsA', { value: -73.46, uncertainty: 24 })).toMatchObject({
      value: '−70',
      spread: '±20',
    });
    expect(figureText('silenceRmsA', { value: -73.46 })).toMatchObject({ value: '−73.5', spread: '', another: '' });
    expect(figureText('silenceRmsA', { value: -73.46, uncertainty: 0.001 })).toMatchObject({ value: '−73.5', spread: '±0.1' }); // prettier-ignore
  });

  it('says whether it is a limit', () => {
    const value = (bound: 'exact' | 'at-least' | 'at-most') => figureText('silenceRmsA', { value: -70, bound }).value;
    expect([value('exact'), value('at-least'), value('at-most')]).toEqual(['−70.0', '≥ −70.0', '≤ −70.0']);
  });

  it('tells what another reading would differ by where that is more', () => {
    const another = (uncertainty: number | null, anotherReading: number | null) =>
      figureText('silenceRmsA', { value: -70, uncertainty, anotherReading });
    expect(another(0.42, 1.1)).toMatchObject({ spread: '±0.4', another: '±1.1 another reading' });
    expect(another(1, 1.15).another, 'less than a fifth more').toBe('');
    expect(another(1, 1.21).another).toBe('±1.2 another reading');
    expect(another(0.31, 0.38).another, 'more than a fifth, but a tenth is all that is told').toBe('±0.4 another reading'); // prettier-ignore
    expect(another(0.26, 0.34).another, 'rounds to the same').toBe('');
    expect(another(null, 2.2)).toEqual({ value: '−70', spread: '', another: '±2 another reading', unit: 'dBFS(A)' });
    expect(another(0.3, null).another).toBe('');
  });

  it('not measured is no number', () => {
    expect(figureText('silenceRmsA', { value: null, uncertainty: 1 })).toEqual({ value: 'not measured', spread: '', another: '', unit: '' }); // prettier-ignore
  });
});
