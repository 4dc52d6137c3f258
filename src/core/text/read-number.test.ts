import { describe, expect, it } from 'vitest';
import { numberText, readNumber, type NumberSheet } from './read-number';

const GAIN: NumberSheet = { unit: 'dB', least: -40, most: 120 };
const RATE: NumberSheet = { unit: 'kHz', units: { Hz: 0.001 }, least: 8, most: 384 };
const PRICE: NumberSheet = { unit: '', units: { EUR: 1, '€': 1 }, least: 0.01, most: 1e9, decimals: 2 };
const POINTS: NumberSheet = { unit: '', least: 0, most: 5 };
const CELL: NumberSheet = { unit: 'ms' };

const value = (text: string, sheet: NumberSheet) => {
  const read = readNumber(text, sheet);
  return read.isUnderstood ? read.value : read.why;
};

describe('a number as it is typed', () => {
  it.each<[string, NumberSheet, number | null]>([
    ['', GAIN, null],
    ['30', GAIN, 30],
    [' 30 dB ', GAIN, 30],
    ['30db', GAIN, 30],
    ['−6,5', GAIN, -6.5],
    ['-6.5', GAIN, -6.5],
    ['+3', GAIN, 3],
    ['.5', GAIN, 0.5],
    ['48', RATE, 48],
    ['48 kHz', RATE, 48],
    ['48000 Hz', RATE, 48],
    ['44.1', RATE, 44.1],
    ['44,1 khz', RATE, 44.1],
    ['1.299,50', PRICE, 1299.5],
    ['1,299.50', PRICE, 1299.5],
    ["1'299.50", PRICE, 1299.5],
    ['1 299,50 EUR', PRICE, 1299.5],
    ['1.299', PRICE, 1299],
    ['1,299', PRICE, 1299],
    ['12.345.678', PRICE, 12_345_678],
    ['99,9 €', PRICE, 99.9],
    ['4,5', POINTS, 4.5],
    ['1.299', CELL, 1.299],
    ['0,125', CELL, 0.125],
    ['12 000', CELL, 12_000],
  ])('%s is understood', (text, sheet, expected) => {
    expect(value(text, sheet)).toBe(expected);
  });

  it.each<[string, NumberSheet, RegExp]>([
    ['7', POINTS, /^7 is outside; a number from 0 to 5 is taken\.$/],
    ['48000', RATE, /^48000 kHz is outside.*Write 48000 Hz if that is meant/],
    ['48', { ...RATE, unit: 'Hz', units: { kHz: 1000 }, least: 8000, most: 384_000 }, /Write 48 kHz if that is meant/],
    ['about 30', GAIN, /no number/],
    ['30 W', GAIN, /“W” is not a unit of this field/],
    ['12-15', GAIN, /not a unit|no number/],
    ['1e3', GAIN, /not a unit/],
    ['1 23', GAIN, /no number/],
    ['1.2.3', GAIN, /no number/],
    ['1,29,50', PRICE, /no number/],
    ['1.299,5,0', PRICE, /no number/],
    ['1,299', CELL, /can be 1\.299 or 1299/],
    ['2.5', { unit: '', isWhole: true, least: 1, most: 20 }, /2\.5 is no whole number; a whole number from 1 to 20/],
    ['1299 GBP', PRICE, /“GBP” is not a unit/],
  ])('%s is refused beside the field', (text, sheet, why) => {
    expect(value(text, sheet)).toMatch(why);
  });

  it('reads the groups of a price, never its cents in thousandths', () => {
    // A third decimal of a price would be no price, so these are thousands.
    expect(value('10.005', PRICE)).toBe(10_005);
    expect(value('0.005', PRICE)).toMatch(/no number/);
  });

  it('gives back what it shows, for any value a field can hold', () => {
    for (const sheet of [GAIN, RATE, PRICE, POINTS, CELL]) {
      for (const x of [0.01, 0.1, 0.3, 1, 1.005, 2.5, 4.999, 8, 36.25, 44.1, 96, 119.9]) {
        if (x < (sheet.least ?? 0) || x > (sheet.most ?? 1e9)) continue;
        if (sheet.decimals !== undefined && Math.abs(x * 100 - Math.round(x * 100)) > 1e-9) continue;
        expect(value(numberText(x, sheet), sheet), `${x} ${sheet.unit}`).toBe(x);
      }
    }
    expect(value(numberText(-12, GAIN), GAIN)).toBe(-12);
  });
});
