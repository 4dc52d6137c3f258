import { describe, expect, it } from 'vitest';
import { describedRows, type FigureRow } from './compare-charts';

const cell = (value: number | null, differs = false) => ({ value, uncertainty: 0.001, differs });
const row = (quantity: string, ...cells: FigureRow['cells']): FigureRow => ({ quantity, cells });

describe('the table of figures', () => {
  it('names each quantity with its unit, and leaves out what is of the recording', () => {
    const [hum, old] = describedRows([row('hum', cell(-80)), row('samplePeak', cell(-9)), row('gone', cell(1))], 0);
    expect(hum).toMatchObject({ title: 'Hum', unit: 'dBFS', decimals: 1 });
    expect(old).toMatchObject({ quantity: 'gone', title: 'gone', unit: '' });
  });

  it('does not say that two figures differ which read the same', () => {
    const [hum] = describedRows([row('hum', cell(-80.01), cell(-80.04, true), cell(-80.2, true), cell(null))], 0);
    expect(hum.cells.map((c) => c.differs)).toEqual([false, false, true, false]);
    const [other] = describedRows([row('hum', cell(-80.2, true), cell(-80.01))], 1);
    expect(other.cells.map((c) => c.differs)).toEqual([true, false]);
  });
});
