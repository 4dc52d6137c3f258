import { describe, expect, it } from 'vitest';
import { dialFigures, headphoneNoise, headphoneOutput, steepestPart } from './table-figures';

const cell = (row: string, column: string, value: number) => ({ row, column, value });

describe('gain by dial', () => {
  const cells = [[0, -60], [50, -40], [85, -25], [90, -20], [100, -5]].map(([share, db]) => cell(`${share} %`, 'level', db)); // prettier-ignore

  it('tells its range and what the last 15 % hold', () => {
    expect(dialFigures({ cells }).map((m) => [m.quantity, m.value])).toEqual([
      ['gainRange', 55],
      ['gainLast15', 20],
      ['gainSteepest', 15],
    ]);
    // 15 dB over the last tenth; 20 dB over the first half are four for a tenth.
    expect(steepestPart({ cells })).toEqual({ fromRow: '90 %', toRow: '100 %', dbPerTenth: 15 });
  });

  it('says nothing of positions that were not read, and names a dial that falls', () => {
    expect(dialFigures({ cells: cells.slice(1) }).map((m) => m.quantity)).toEqual(['gainLast15', 'gainSteepest']);
    const falling = cells.map((c) => (c.row === '50 %' ? { ...c, value: -65 } : c));
    expect(dialFigures({ cells: falling })[0].condition).toMatch(/falls between 0 and 50 %/);
    expect(steepestPart({ cells: [] })).toBeNull();
    expect(steepestPart({ cells: [cells[0], cells[0]] })).toBeNull();
  });
});

describe('headphone output, by Ohm’s law', () => {
  const volts = (of32: number, open: number) => ({ cells: [cell('32 Ω', 'voltage', of32), cell('150 Ω', 'voltage', open * 0.99), cell('open', 'voltage', open)] }); // prettier-ignore

  it('power and output impedance: 1 V at 32 Ω is 31.25 mW; 1.5 V open makes 16 Ω', () => {
    const [power, impedance] = headphoneOutput(volts(1, 1.5));
    expect(power.value).toBeCloseTo(31.25, 6);
    expect(impedance.value).toBeCloseTo(16, 6);
    expect(impedance.condition).toBe('1.5 V open, 1 V at 32 Ω');
  });

  it('below what the meter tells it is a limit; a voltage that rises with the load is refused', () => {
    const small = headphoneOutput(volts(1, 1.01))[1];
    expect(small.bound).toBe('at-most');
    expect(small.value).toBeGreaterThan(0.32);
    expect(headphoneOutput(volts(1.5, 1))[1].notMeasured).toMatch(/misread/);
  });

  it('needs both voltages', () => {
    expect(headphoneOutput({ cells: [cell('open', 'voltage', 1)] })).toEqual([]);
  });
});

describe('noise of a headphone output', () => {
  it('is that of the loudest row, and told re the highest voltage', () => {
    const cells = [cell('volume at its lowest', 'noise', -104), cell('volume at its highest', 'noise', -96)];
    // 1.55 V are 20·log10(1.55/0.7746) = 6.03 dBu.
    const output = { cells: [cell('32 Ω', 'voltage', 1.5), cell('open', 'voltage', 1.55)] };
    expect(headphoneNoise({ cells }, output)).toMatchObject([
      {
        quantity: 'headphoneNoise',
        value: -96,
        condition: 'nothing played, volume at its highest; 102 dB below its highest voltage',
      },
    ]);
    expect(headphoneNoise({ cells }, undefined)[0].condition).toBe('nothing played, volume at its highest');
    expect(headphoneNoise({ cells: [] }, output)).toEqual([]);
  });
});
