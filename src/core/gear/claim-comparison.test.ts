import { describe, expect, it } from 'vitest';
import { claimAsSheetValue, compareClaim, impossibleClaim } from './claim-comparison';

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

describe('claims that nothing can keep', () => {
  const ein = (value: number, condition: string, quantity: 'einA' | 'einZ' = 'einA', unit = 'dBu') =>
    impossibleClaim({ quantity, value, unit, condition });

  // 150 Ω at 20 °C, 20 Hz to 20 kHz: −130.9 dBu unweighted (Johnson–Nyquist, handbooks), about −133 dBu(A) (common
  // practice; ours by the A curve).
  it('are quieter than the resistor at the input', () => {
    expect(ein(-133.5, 'A-weighted, 150 Ω')).toMatch(/^impossible: 150 Ω at 20 °C make −133\.0 dBu\(A\) themselves$/);
    expect(ein(-131, 'unweighted, 150 Ω', 'einZ')).toMatch(/make −130\.9 dBu themselves/);
    expect(ein(-132.9, 'A-weighted')).toBeNull();
    expect(ein(-130.9, 'unweighted', 'einZ')).toBeNull();
    // 0.1736 µV is −133 dBu; in volts it is the same claim.
    expect(ein(0.00016, 'A-weighted', 'einA', 'mV')).toMatch(/^impossible/);
    // 50 Ω make 4.8 dB less.
    expect(ein(-137, 'A-weighted, 50 Ω')).toBeNull();
    expect(ein(-138, 'A-weighted, 50 ohm')).toMatch(/50 Ω at 20 °C make −137\.7/);
  });

  it('are none with a shorted input, and of figures without a limit', () => {
    expect(ein(-140, 'A-weighted, input shorted')).toBeNull();
    expect(ein(-140, 'A-weighted, 0 Ω')).toBeNull();
    expect(impossibleClaim({ quantity: 'selfNoise', value: 1, unit: 'dB SPL', condition: 'A-weighted' })).toBeNull();
    expect(impossibleClaim({ quantity: 'einA', value: -150, unit: 'furlongs', condition: '' })).toBeNull();
  });
});

it('a claim of a file becomes a field of the sheet: its weighting is a condition, said once', () => {
  expect(claimAsSheetValue({ value: -128, unit: 'dBu(A)', condition: '150 Ω' })).toEqual({
    type: 'number',
    value: -128,
    unit: 'dBu',
    condition: 'A-weighted, 150 Ω',
  });
  expect(claimAsSheetValue({ value: 12, unit: 'dB SPL(A)', condition: 'A-weighted' }).condition).toBe('A-weighted');
  expect(claimAsSheetValue({ value: 40, unit: 'Hz', condition: '' })).toMatchObject({ unit: 'Hz', condition: '' });
});
