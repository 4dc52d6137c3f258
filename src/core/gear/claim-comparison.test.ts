import { describe, expect, it } from 'vitest';
import { compareClaim } from './claim-comparison';

describe('claims beside measured figures', () => {
  it('are converted where the unit allows it', () => {
    // −40 dB re 1 V/Pa is 10 mV/Pa.
    expect(compareClaim({ quantity: 'sensitivity', value: -40, unit: 'dBV/Pa', condition: '' }, 9)).toMatchObject({
      comparable: true,
      value: expect.closeTo(10, 9) as number,
      differenceInUnit: expect.closeTo(-1, 9) as number,
    });
    expect(compareClaim({ quantity: 'responseHigh3', value: 18, unit: 'kHz', condition: '−3 dB' }, null)).toEqual({
      comparable: true,
      value: 18_000,
      differenceInUnit: null,
    });
  });
  it.each([
    ['selfNoise', 'dB SPL', '', /without a weighting/],
    ['selfNoise', 'dB SPL', 'CCIR 468', /468/],
    ['responseLow3', 'Hz', '', /without a tolerance/],
    ['responseLow3', 'Hz', '-10 dB', /claimed at -10 dB/],
    ['sensitivity', 'furlongs', '', /cannot be converted/],
  ] as const)('%s in %s (%s) is not set beside the figure', (quantity, unit, condition, reason) => {
    const comparison = compareClaim({ quantity, value: 1, unit, condition }, 1);
    expect(comparison.comparable ? '' : comparison.reason).toMatch(reason);
  });
  it('A-weighted self-noise may be said either way', () => {
    for (const [unit, condition] of [
      ['dB SPL(A)', ''],
      ['dB', 'A-weighted'],
    ]) {
      expect(compareClaim({ quantity: 'selfNoise', value: 12, unit, condition }, 14)).toMatchObject({
        differenceInUnit: 2,
      });
    }
  });

  it('EIN in dBV is told in dBu: 1 V re 0.7746 V, 2.218 dB (handbook value)', () => {
    expect(compareClaim({ quantity: 'einA', value: -130, unit: 'dBV(A)', condition: '150 ohm' }, -127)).toMatchObject({
      value: expect.closeTo(-127.782, 3) as number,
      differenceInUnit: expect.closeTo(0.782, 3) as number,
    });
    expect(compareClaim({ quantity: 'einZ', value: -128, unit: 'dBu', condition: '' }, -126)).toMatchObject({
      differenceInUnit: 2,
    });
  });
  it.each([
    ['einA', 'dBu', '', /without a weighting/],
    ['einZ', 'dBu', 'A-weighted', /claimed A-weighted/],
    ['einA', 'dBu(A)', 'Rs = 40 Ω', /with 40 Ω/],
    ['einA', 'nV/√Hz', 'A', /cannot be converted/],
  ] as const)('%s in %s (%s) is another figure than the measured one', (quantity, unit, condition, reason) => {
    const comparison = compareClaim({ quantity, value: -128, unit, condition }, -127);
    expect(comparison.comparable ? '' : comparison.reason).toMatch(reason);
  });
});
