import { describe, expect, it } from 'vitest';
import { takenOver } from './take-over';
import { tableLines, UnreadableTable } from './table-lines';

const cell = (column: string, value: number, source: 'typed' | 'measured' = 'typed') => ({
  row: '1 kHz',
  column,
  value,
  source,
  clip: source === 'measured' ? 'a'.repeat(64) : null,
});
const read = (...cells: { column: string; value: number }[]) => ({
  cells: cells.map((c) => ({ row: '1 kHz', ...c })),
  notes: ['something'],
});

describe('what was read into a table', () => {
  it('stands in it as typed, beside what it does not give', () => {
    const { cells, told } = takenOver([cell('left', 16)], read({ column: 'right', value: 17 }), 'the clipboard');
    expect(cells).toEqual([cell('left', 16), cell('right', 17)]);
    expect(told).toEqual(['One cell filled from the clipboard.', 'something']);
  });

  it('takes the place of what was there, a reading of a recording too, and says how many', () => {
    const before = [cell('left', 16, 'measured'), cell('right', 17)];
    const { cells, told } = takenOver(
      before,
      read({ column: 'left', value: 18 }, { column: 'right', value: 17 }),
      'a.csv',
    );
    expect(cells).toEqual([cell('left', 18), cell('right', 17)]);
    expect(told[0]).toBe('2 cells filled from a.csv; 1 held another number before.');
    expect(takenOver(before, read({ column: 'left', value: 1 }), 'a.csv').told[0]).toBe(
      'One cell filled from a.csv; each held another number before.',
    );
  });

  it('may be nothing', () => {
    const { cells, told } = takenOver([cell('left', 16)], read(), 'a.csv');
    expect(cells).toEqual([cell('left', 16)]);
    expect(told[0]).toBe('No cells filled from a.csv.');
  });
});

describe('lines of a text', () => {
  it('are taken apart as a spreadsheet writes them', async () => {
    expect(await tableLines('a;"1;5"\r\nb;2\r\n')).toEqual([
      ['a', '1;5'],
      ['b', '2'],
    ]);
  });

  it('are refused where a quote does not close', async () => {
    await expect(tableLines('a,"1\nb,2')).rejects.toThrow(UnreadableTable);
  });
});
