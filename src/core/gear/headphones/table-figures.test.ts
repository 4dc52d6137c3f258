import { describe, expect, it } from 'vitest';
import { earLevelFigures, impedanceFigures } from './table-figures';

const cells = (rows: Record<string, readonly number[]>) => ({
  cells: Object.entries(rows).flatMap(([row, values]) =>
    values.map((value, i) => ({ row, column: ['left', 'right'][i], value })),
  ),
});

describe('impedance', () => {
  it('is that of 1 kHz, whatever the row is called, and the mean of the sides', () => {
    const [at1k] = impedanceFigures(cells({ '20 Hz': [90, 94], '1 kHz': [62, 64], '10 kHz': [70, 71] }));
    expect(at1k).toMatchObject({ quantity: 'impedance', value: 63 });
    expect(at1k.condition).toContain('mean of both sides');
    expect(impedanceFigures(cells({ '1000 Hz': [32] }))[0].value).toBe(32);
    expect(impedanceFigures(cells({ '1000 Hz': [32] }))[0].condition).toContain('one side');
  });

  it('is read to three hundredths of itself, of rows in any order', () => {
    const [at1k, colours] = impedanceFigures(cells({ '10 kHz': [60], '1 kHz': [50], '20 Hz': [40], nowhere: [7] }));
    expect(at1k).toMatchObject({ value: 50, uncertainty: 1.5 });
    expect(colours.condition).toBe('3 frequencies from 20 Hz to 10 kHz');
    // One side with readings, the other with none that can be.
    expect(impedanceFigures(cells({ '1 kHz': [50, 0] }))[0]).toMatchObject({ value: 50 });
    expect(impedanceFigures(cells({ '1 kHz': [50, 0] }))[0].condition).toContain('one side');
    expect(impedanceFigures(cells({ '900 Hz': [50] }))[0].value).toBeNull();
  });

  it('is told as missing where no row is of 1 kHz, and not told at all of an empty table', () => {
    expect(impedanceFigures(cells({ '100 Hz': [32], '10 kHz': [33] }))[0].notMeasured).toMatch(/no row of 1 kHz/);
    expect(impedanceFigures({ cells: [] })).toEqual([]);
    expect(impedanceFigures(cells({ somewhere: [32] }))).toEqual([]);
  });

  it("says what an output of 10 Ω adds, by Ohm's law", () => {
    // 16 Ω that rise to 60 Ω at a resonance: 20·log10(60/70) − 20·log10(16/26) = −1.339 + 4.217 = 2.878 dB, by hand.
    const figures = impedanceFigures(cells({ '20 Hz': [16, 16], '100 Hz': [60, 20], '1 kHz': [16, 16] }));
    const change = figures.find((m) => m.quantity === 'outputColours');
    expect(change?.value).toBeCloseTo(2.878, 2);
    expect(change?.condition).toBe('3 frequencies from 20 Hz to 1 kHz');
    expect(impedanceFigures(cells({ '1 kHz': [16] })).some((m) => m.quantity === 'outputColours')).toBe(false);
  });
});

describe('level at the ear', () => {
  it('per volt is as typed; per milliwatt follows from the impedance', () => {
    // Handbook arithmetic: 1 V into 32 Ω is 31.25 mW, 14.95 dB above 1 mW.
    const [perVolt, perPower] = earLevelFigures(cells({ '1 kHz': [114, 116] }), cells({ '1 kHz': [32] }));
    expect(perVolt).toMatchObject({ quantity: 'sensitivityPerVoltage', value: 115, uncertainty: 1 });
    expect(perPower.value).toBeCloseTo(115 - 14.949, 2);
    // 1 dB of the ear, and 3 % of the ohms, which are 0.13 dB.
    expect(perPower.uncertainty).toBeCloseTo(Math.hypot(1, 0.13), 2);
    expect([perVolt.condition, perPower.condition]).toEqual(['1 V, 1 kHz, artificial ear, mean of both sides', '1 mW, 1 kHz, artificial ear, mean of both sides']); // prettier-ignore
    expect(earLevelFigures(cells({ '1 kHz': [114] }), undefined)[0].condition).toContain('one side');
  });

  it('per milliwatt is not measured where nobody knows the impedance', () => {
    const [, perPower] = earLevelFigures(cells({ '1 kHz': [114] }), undefined);
    expect(perPower.notMeasured).toMatch(/impedance at 1 kHz is not known/);
    expect(earLevelFigures(cells({ '500 Hz': [114] }), undefined)).toEqual([]);
  });
});
