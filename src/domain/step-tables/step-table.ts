import type { Step } from '#contracts/protocol';
import type { TableCell, TableReading } from '#contracts/table-reading';

/** What a table of a step asks for: its rows, its columns, what stands in a cell. */
export type StepTable = NonNullable<Step['table']>;
/** Where a cell stands. */
export type CellPlace = Pick<TableCell, 'row' | 'column'>;

export const isAt = (cell: CellPlace, row: string, column: string): boolean =>
  cell.row === row && cell.column === column;

/**
 * Cells with one of them put in, put anew, or taken out.
 *
 * @param cells - as they stand
 * @param place - of the cell
 * @param content - what stands there now; null: nothing
 */
export function withCell(
  cells: readonly TableCell[],
  { row, column }: CellPlace,
  content: Pick<TableCell, 'value' | 'source' | 'clip'> | null,
): TableCell[] {
  const others = cells.filter((c) => !isAt(c, row, column));
  return content === null ? others : [...others, { row, column, ...content }];
}

/** Cells in the order of their table, row by row, whichever was filled in first. */
export function inOrder(cells: readonly TableCell[], { rows, columns }: StepTable): TableCell[] {
  const rank = (c: TableCell): number => rows.indexOf(c.row) * columns.length + columns.indexOf(c.column);
  return [...cells].sort((a, b) => rank(a) - rank(b));
}

/** A cell that cannot be, by its place in the list, and why. */
export interface CellMisfit {
  readonly at: number;
  readonly why: string;
}

/**
 * Cells that their table does not have, and those that are filled in twice.
 *
 * @param cells - of a reading
 * @param table - of its step
 */
export function misfits(cells: TableReading['cells'], { rows, columns }: StepTable): CellMisfit[] {
  return cells.flatMap(({ row, column }, at) => {
    const name = `“${row} / ${column}”`;
    if (!rows.includes(row))
      return [{ at, why: `has no cell ${name}: there is no row “${row}”; its rows: ${rows.join(', ')}` }];
    if (!columns.includes(column))
      return [{ at, why: `has no cell ${name}: there is no column “${column}”; its columns: ${columns.join(', ')}` }];
    const isAgain = cells.findIndex((c) => isAt(c, row, column)) < at;
    return isAgain ? [{ at, why: `has the cell ${name} twice` }] : [];
  });
}
