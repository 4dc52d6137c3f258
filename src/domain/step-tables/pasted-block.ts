import { readNumber } from '#core/text/read-number';
import { cellSheet } from './cell-sheet';
import type { ReadTable } from './read-step-table';
import type { CellPlace, StepTable } from './step-table';

/**
 * Numbers that were copied from a spreadsheet without their names, put down from the cell where they are pasted.
 *
 * @param lines - cells of each line, as text
 * @param table - that they are pasted into
 * @param from - the cell that has the focus
 * @returns null where the lines hold anything but numbers, so that they may have names
 */
export function pastedBlock(
  lines: readonly (readonly string[])[],
  table: StepTable,
  from: CellPlace,
): ReadTable | null {
  const { rows, columns } = table;
  const sheet = cellSheet(table);
  const filled = lines.filter((line) => line.some((c) => c.trim() !== ''));
  const readings = filled.map((line) => line.map((text) => readNumber(text, sheet)));
  if (readings.length === 0 || readings.some((line) => line.some((r) => !r.isUnderstood))) return null;
  const [top, left] = [rows.indexOf(from.row), columns.indexOf(from.column)];
  const width = Math.max(...readings.map((line) => line.length));
  if (top + readings.length > rows.length || left + width > columns.length) {
    const [down, across] = [rows.length - top, columns.length - left];
    return {
      cells: [],
      notes: [
        `Nothing was put in: ${readings.length} × ${width} numbers do not fit where ${down} × ${across} cells are left. Begin further up or left.`,
      ],
    };
  }
  return {
    cells: readings.flatMap((line, i) =>
      line.flatMap((r, j) =>
        r.isUnderstood && r.value !== null ? [{ row: rows[top + i], column: columns[left + j], value: r.value }] : [],
      ),
    ),
    notes: [],
  };
}
