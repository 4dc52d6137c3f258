import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { csvText } from './csv';

const read = (text: string): string[][] => parse(text, { relaxColumnCount: true });

describe('tables as text', () => {
  // Read back by csv-parse, which follows RFC 4180.
  it('come back cell by cell, whatever stands in them', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.string(), fc.string()), { minLength: 1 }), (rows) => {
        const back = read(csvText(rows));
        const guarded = rows.map((row) => row.map((c) => (/^[=+\-@\t\r]/.test(c) ? `'${c}` : c)));
        // A line of empty cells only is a line of separators, which stays.
        expect(back).toEqual(guarded);
      }),
    );
  });

  // OWASP, "CSV Injection": cells that begin with = + - @, tab or carriage return are formulas.
  it.each(['=1+1', '+1', '-1+cmd', '@SUM(A1)', '\t=1', '\r=1'])('%j is no formula', (text) => {
    expect(read(csvText([[text]]))[0][0]).toBe(`'${text}`);
  });

  it('keeps negative numbers numbers, leaves cells that are not known empty, and ends lines as the standard says', () => {
    expect(csvText([['a', 'b', 'c'], [-64.8, null, 0]])).toBe('a,b,c\r\n-64.8,,0\r\n'); // prettier-ignore
  });

  it('writes decimal commas where cells are divided by semicolons', () => {
    expect(csvText([['a;b', -64.8, 'x,y']], 'semicolon')).toBe('"a;b";-64,8;"x,y"\r\n');
  });
});
