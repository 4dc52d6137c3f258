/** What stands in a cell; null is empty: not measured, not known, never zero. */
export type Cell = string | number | null;

/** Countries that write 1.5 divide cells by commas; those that write 1,5 by semicolons, and their spreadsheets ask for it. */
export const CSV_STYLES = {
  comma: { separator: ',', decimal: '.' },
  semicolon: { separator: ';', decimal: ',' },
} as const;
export type CsvStyle = keyof typeof CSV_STYLES;

/** A text that begins so would be taken for a formula by a spreadsheet: a name in a table must not run anything. */
const FORMULA = /^[=+\-@\t\r]/;

/**
 * A table as text, RFC 4180: lines end with CR LF, cells with separators, quotes or line ends stand in quotes. Texts
 * that would be formulas get an apostrophe in front, which spreadsheets do not show; numbers stay numbers.
 *
 * @param rows - the first is the header
 * @param style - how cells are divided and numbers written
 */
export function csvText(rows: readonly (readonly Cell[])[], style: CsvStyle = 'comma'): string {
  const { separator, decimal } = CSV_STYLES[style];
  const cell = (value: Cell): string => {
    if (value === null) return '';
    if (typeof value === 'number') return String(value).replace('.', decimal);
    const safe = FORMULA.test(value) ? `'${value}` : value;
    return /[",;\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
  };
  return rows.map((row) => `${row.map(cell).join(separator)}\r\n`).join('');
}
