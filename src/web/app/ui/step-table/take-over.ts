import type { ReadTable } from '#domain/step-tables/read-step-table';
import { isAt, withCell } from '#domain/step-tables/step-table';
import type { TableCell } from '#contracts/table-reading';

/** A table after something was read into it, and what is to be said of that. */
export interface TakenOver {
  readonly cells: TableCell[];
  readonly told: readonly string[];
}

/**
 * Puts what was read into a table. Cells that hold another number are replaced, and counted; those that the text does
 * not give stay.
 *
 * @param cells - as they stand
 * @param read - from a file or a pasted text
 * @param from - what it was read from, as it is called in the sentence
 */
export function takenOver(cells: readonly TableCell[], { cells: read, notes }: ReadTable, from: string): TakenOver {
  const replaced = read.filter((r) => cells.some((c) => isAt(c, r.row, r.column) && c.value !== r.value)).length;
  const filled = read.reduce<TableCell[]>(
    (all, { value, ...place }) => withCell(all, place, { value, source: 'typed', clip: null }),
    [...cells],
  );
  const count = read.length === 1 ? 'One cell' : `${read.length === 0 ? 'No' : read.length} cells`;
  const words = replaced === 0 ? '' : `; ${replaced === read.length ? 'each' : replaced} held another number before`;
  return { cells: filled, told: [`${count} filled from ${from}${words}.`, ...notes] };
}
