import { describe, expect, it } from 'vitest';
import { directMonitor, inputImpedance } from './input-figures';

const table = (rows: Readonly<Record<string, number>>) => ({ cells: Object.entries(rows).map(([row, value]) => ({ row, column: 'level', value })) }); // prettier-ignore

describe('input impedance, by a divider', () => {
  // Ohm: an input of Z behind R keeps Z / (Z + R) of the voltage. 900 Ω and 3 kΩ are the trade's own examples.
  it.each([
    [900, 1000],
    [3000, 1000],
    [10_000, 4700],
  ])('%i Ω behind %i Ω come back', (z, r) => {
    const lost = 20 * Math.log10(z / (z + r));
    const [found] = inputImpedance(table({ nothing: -20, [`${r} Ω`]: -20 + lost }));
    expect(found.value).toBeCloseTo(z, 6);
    // A tenth of a decibel on either reading, moved by hand.
    const [moved] = inputImpedance(table({ nothing: -20, [`${r} Ω`]: -20 + lost - 0.1 * Math.SQRT2 }));
    expect(found.uncertainty ?? 0).toBeGreaterThan(0.8 * Math.abs((moved.value ?? 0) - z));
  });

  it('reads kilo-ohms, tells a limit where the meter shows nothing, and refuses a rise', () => {
    expect(inputImpedance(table({ nothing: -20, '1 kΩ': -26.02 }))[0].value).toBeCloseTo(1000, -1);
    expect(inputImpedance(table({ nothing: -20, '1 kΩ': -20.1 }))[0]).toMatchObject({ bound: 'at-least' });
    expect(inputImpedance(table({ nothing: -20, '1 kΩ': -19 }))[0].notMeasured).toMatch(/misread/);
    expect(inputImpedance(table({ nothing: -20 }))).toEqual([]);
  });
});

it('the direct monitor is so much louder or softer than the way through the computer', () => {
  expect(directMonitor(table({ 'through the computer': -20, direct: -17.5 }))[0].value).toBeCloseTo(2.5, 12);
  expect(directMonitor(table({ direct: -17.5 }))).toEqual([]);
});
