import { describe, expect, it } from 'vitest';
import { dialFigures, headphoneOutput, steepestPart, latencyCells, latencyFigure } from './table-figures';

const cell = (row: string, column: string, value: number) => ({ row, column, value });
const table = (row: string, byColumn: Record<string, number>) => ({ cells: Object.entries(byColumn).map(([column, value]) => cell(row, column, value)) }); // prettier-ignore

describe('latency beyond the buffers', () => {
  // Facts of the trade (common practice, no source): two devices at 48 kHz with 64, 128 and 256 samples.
  it.each([
    [{ '64': 13, '128': 15.5, '256': 21 }, 10.2],
    [{ '64': 9, '128': 11.5, '256': 17 }, 6.3],
  ])('is the same for every buffer of a published table, within 0.4 ms: %o', (byBuffer, fixed) => {
    const cells = latencyCells(table('48 kHz', byBuffer));
    for (const c of cells) expect(Math.abs(c.restMs - fixed)).toBeLessThan(0.4);
    expect(cells.some((c) => c.isOdd)).toBe(false);
    const [found] = latencyFigure(table('48 kHz', byBuffer));
    expect(Math.abs((found.value ?? NaN) - fixed)).toBeLessThan(0.2);
    expect(found.uncertainty).toBeGreaterThan(0);
  });

  it('marks the cell that does not fit, and leaves it out', () => {
    const odd = table('48 kHz', { '64': 5, '128': 7.7, '256': 22, '512': 23.7 });
    expect(latencyCells(odd).map((c) => c.isOdd)).toEqual([false, false, true, false]);
    expect(latencyFigure(odd)[0].condition).toContain('left out as implausible: 256');
    expect(latencyFigure(odd)[0].value).toBeCloseTo(5 - 128 / 48, 1);
  });

  it('reads rates in kHz and in Hz, and takes the rate with most cells', () => {
    const cells = [
      ...table('96000', { '64': 3, '128': 4.33 }).cells,
      ...table('44.1 kHz', { '64': 6, '128': 8.9, '256': 14.7 }).cells,
    ];
    expect(latencyCells({ cells })[0].restMs).toBeCloseTo(3 - 128 / 96, 6);
    expect(latencyFigure({ cells })[0].condition).toMatch(/at 44\.1 kHz, median of 3 buffers/);
  });

  it('is refused where the table cannot be round trips', () => {
    expect(latencyFigure(table('48 kHz', { '512': 11, '1024': 22 }))[0].notMeasured).toMatch(
      /shorter than its buffers/,
    );
    expect(latencyFigure(table('48 kHz', { '64': 9, '128': 30, '256': 17, '512': 90 }))[0].notMeasured).toMatch(
      /go together/,
    );
    expect(latencyFigure(table('fast', { '64': 3 }))).toEqual([]);
  });
});

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
