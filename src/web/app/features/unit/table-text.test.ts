import { describe, expect, it } from 'vitest';
import { cellText, tableCaption } from './table-text';

const cell = (source: 'typed' | 'measured', value = 1) => ({ row: '1 kHz', column: 'left', value, source, clip: null });
const caption = (...sources: ('typed' | 'measured')[]) =>
  tableCaption({ title: 'Impedance', cell: 'impedance', unit: 'Ω', cells: sources.map((s) => cell(s)) });

describe('a table of a run', () => {
  it('says where its numbers come from, and nothing of what it has none of', () => {
    expect(caption('typed', 'typed')).toBe('Impedance: impedance, Ω; typed in');
    expect(caption('measured')).toBe('Impedance: impedance, Ω; read from recordings');
    expect(caption('measured', 'typed')).toBe(
      'Impedance: impedance, Ω; 1 of 2 read from recordings, the others typed in',
    );
    expect(tableCaption({ title: 'Parts', cell: 'count', unit: '', cells: [cell('typed')] })).toBe(
      'Parts: count; typed in',
    );
  });

  it('shows what was typed as it was typed, and a recording to two decimals', () => {
    expect(cellText(cell('typed', 64.1))).toBe('64.1');
    expect(cellText(cell('typed', 32))).toBe('32');
    expect(cellText(cell('typed', -0.125))).toBe('−0.125');
    expect(cellText(cell('typed', 0.1 + 0.2))).toBe('0.3');
    expect(cellText(cell('measured', 12.3456))).toBe('12.35');
  });
});
