import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keptText, readKept } from './kept-number';

const LENGTH = { unit: 'cm', units: { m: 100, mm: 0.1 }, least: 0.1, most: 10_000, shownPer: 100 };
const RATE = { unit: 'kHz', units: { Hz: 0.001 }, least: 8, most: 192, shownPer: 0.001 };

describe('a number that is kept in another unit than it is shown in', () => {
  it('is read in any unit of the field, and kept without what binary fractions leave behind', () => {
    expect(readKept('15', LENGTH)).toEqual({ isUnderstood: true, value: 0.15 });
    expect(readKept('0,15 m', LENGTH)).toEqual({ isUnderstood: true, value: 0.15 });
    expect(readKept('115 mm', LENGTH)).toEqual({ isUnderstood: true, value: 0.115 });
    expect(readKept('44.1', RATE)).toEqual({ isUnderstood: true, value: 44_100 });
    expect(readKept('96000 Hz', RATE)).toEqual({ isUnderstood: true, value: 96_000 });
    expect(readKept('', LENGTH)).toEqual({ isUnderstood: true, value: null });
  });

  it('is refused by the range of what is shown', () => {
    expect(readKept('4 kHz', RATE)).toMatchObject({ isUnderstood: false });
    expect(readKept('200 m', LENGTH)).toMatchObject({
      isUnderstood: false,
      why: expect.stringContaining('10000 cm') as string,
    });
  });

  it('is shown in the unit of the field', () => {
    expect(keptText(0.15, LENGTH)).toBe('15 cm');
    expect(keptText(1.1, LENGTH)).toBe('110 cm');
    expect(keptText(44_100, RATE)).toBe('44.1 kHz');
    expect(keptText(3, { unit: 'dB' })).toBe('3 dB');
  });

  it('comes back as it was shown', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (tenths) => {
        const shown = keptText(tenths / 1000, LENGTH);
        const read = readKept(shown, LENGTH);
        expect(read).toEqual({ isUnderstood: true, value: tenths / 1000 });
      }),
    );
  });
});
