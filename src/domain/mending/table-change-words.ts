import { correctionText, fieldChanges } from '#core/rules/correction-text';
import { numberText } from '#core/text/read-number';
import type { TableCell } from '#contracts/table-reading';
import type { StepTable } from '../step-tables/step-table';

/** More cells than this are counted, not named. */
const MOST_NAMED = 6;

/**
 * What a change of a table changed, in words: a few cells with both values, many by their number.
 *
 * @param subject - table, with what tells it from others
 * @param before - its cells
 * @param after - its cells, later
 * @returns null where nothing differs
 */
export function tableChangeWords(
  subject: string,
  table: Pick<StepTable, 'unit'>,
  before: readonly TableCell[],
  after: readonly TableCell[],
): string | null {
  const words = (cells: readonly TableCell[]): Record<string, string> =>
    Object.fromEntries(cells.map((c) => [`${c.row} / ${c.column}`, cellWords(c, table.unit)]));
  const changes = fieldChanges(words(before), words(after));
  const changed = changes.filter((c) => c.before !== c.after).length;
  if (changed <= MOST_NAMED) return correctionText(subject, changes);
  return before.length === 0 ? `${subject}: filled in, ${changed} cells` : `${subject}: ${changed} cells changed`;
}

/** Where a number comes from is part of what is said of it. */
const cellWords = ({ value, source }: TableCell, unit: string): string =>
  `${numberText(value, { unit })}${source === 'measured' ? ' (of a recording)' : ''}`;
