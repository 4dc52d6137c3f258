import { parse } from 'csv-parse/sync';
import { describe, expect, it } from 'vitest';
import { pastedBlock } from './pasted-block';
import { divided } from './separator';
import { inOrder, misfits, withCell, type StepTable } from './step-table';

const TABLE: StepTable = {
  rowName: 'Rate',
  rows: ['48 kHz', '96 kHz', '192 kHz'],
  columnName: 'Buffer',
  columns: ['64', '128'],
  cell: 'round trip',
  unit: 'ms',
  fromFile: null,
};
const cell = (row: string, column: string, value = 1) => ({ row, column, value, source: 'typed' as const, clip: null });

describe('cells of a table', () => {
  it('are put in, put anew and taken out, each alone', () => {
    const one = withCell([], { row: '48 kHz', column: '64' }, { value: 7, source: 'typed', clip: null });
    const two = withCell(one, { row: '48 kHz', column: '128' }, { value: 9, source: 'typed', clip: null });
    expect(two.map((c) => c.value)).toEqual([7, 9]);
    expect(withCell(two, { row: '48 kHz', column: '64' }, { value: 8, source: 'typed', clip: null })).toEqual([
      cell('48 kHz', '128', 9),
      cell('48 kHz', '64', 8),
    ]);
    expect(withCell(two, { row: '48 kHz', column: '64' }, null)).toEqual([cell('48 kHz', '128', 9)]);
    const below = withCell(two, { row: '96 kHz', column: '64' }, { value: 3, source: 'typed', clip: null });
    expect(below.map((c) => c.value)).toEqual([7, 9, 3]);
  });

  it('stand in the order of the table', () => {
    const cells = [cell('96 kHz', '64'), cell('48 kHz', '128'), cell('48 kHz', '64')];
    expect(inOrder(cells, TABLE).map((c) => `${c.row} ${c.column}`)).toEqual(['48 kHz 64', '48 kHz 128', '96 kHz 64']);
  });

  it('are refused where the table has none, or twice', () => {
    const cells = [cell('48 kHz', '64'), cell('8 kHz', '64'), cell('48 kHz', '32'), cell('48 kHz', '64')];
    const found = misfits(cells, TABLE);
    expect(found.map((m) => m.at)).toEqual([1, 2, 3]);
    expect(found[0].why).toContain('no row “8 kHz”; its rows: 48 kHz, 96 kHz, 192 kHz');
    expect(found[1].why).toContain('no column “32”; its columns: 64, 128');
    expect(found[2].why).toContain('twice');
  });
});

describe('a pasted block of numbers', () => {
  it('goes down from the cell that it is pasted at', () => {
    const block = pastedBlock(
      [
        ['7', '9,5'],
        ['', '5 ms'],
      ],
      TABLE,
      { row: '96 kHz', column: '64' },
    );
    expect(block?.cells).toEqual([
      { row: '96 kHz', column: '64', value: 7 },
      { row: '96 kHz', column: '128', value: 9.5 },
      { row: '192 kHz', column: '128', value: 5 },
    ]);
  });

  it('fills the whole table, and nothing where it is larger', () => {
    const three = [['1'], ['2'], ['3']];
    expect(pastedBlock(three, TABLE, { row: '48 kHz', column: '128' })?.cells).toHaveLength(3);
    const tooLong = pastedBlock(three, TABLE, { row: '96 kHz', column: '64' });
    expect(tooLong?.cells).toEqual([]);
    expect(tooLong?.notes[0]).toContain('3 × 1 numbers do not fit where 2 × 2 cells are left');
    expect(pastedBlock([['1', '2']], TABLE, { row: '48 kHz', column: '128' })?.cells).toEqual([]);
    const ragged = pastedBlock([['1'], ['2', '3']], TABLE, { row: '48 kHz', column: '128' });
    expect(ragged?.notes[0]).toContain('2 × 2 numbers do not fit where 3 × 1 cells are left');
  });

  it('is none where anything else stands in it', () => {
    expect(pastedBlock([['48 kHz', '7']], TABLE, { row: '48 kHz', column: '64' })).toBeNull();
    expect(pastedBlock([['7'], ['soon']], TABLE, { row: '48 kHz', column: '64' })).toBeNull();
    expect(pastedBlock([[' '], ['7'], ['']], TABLE, { row: '192 kHz', column: '64' })).toEqual({
      cells: [{ row: '192 kHz', column: '64', value: 7 }],
      notes: [],
    });
    expect(pastedBlock([['']], TABLE, { row: '48 kHz', column: '64' })).toBeNull();
  });
});

describe('what divides the cells of a text', () => {
  const read = (text: string): string[][] => {
    const { text: lines, separator } = divided(text);
    return parse(lines, { delimiter: separator, relax_column_count: true });
  };

  it('is told from the text', () => {
    expect(read('a\tb,5\n')).toEqual([['a', 'b,5']]);
    expect(read('a;1,5\n')).toEqual([['a', '1,5']]);
    expect(read('\uFEFFa,1.5\n')).toEqual([['a', '1.5']]);
  });

  it('are blanks where an instrument writes numbers so, also ahead of them', () => {
    expect(read('* a heading of words\n  20.0   16.2 -3.1\n1e3 17.0 2')).toEqual([
      ['*', 'a', 'heading', 'of', 'words'],
      ['  20.0', '16.2', '-3.1'],
      ['1e3', '17.0', '2'],
    ]);
  });

  it('are not the blanks inside of names', () => {
    expect(read('20 Hz,16\n')).toEqual([['20 Hz', '16']]);
    expect(read('20 Hz')).toEqual([['20 Hz']]);
  });
});
