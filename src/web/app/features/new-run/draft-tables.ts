import { misfits, type StepTable } from '#domain/step-tables/step-table';
import type { Step } from '#contracts/protocol';
import type { TableCell, TableReading } from '#contracts/table-reading';

/** A step that is filled in rather than recorded. */
export interface TableStep {
  readonly step: Step;
  readonly table: StepTable;
}

export const tableSteps = (steps: readonly Step[]): TableStep[] =>
  steps.flatMap((step) => (step.table ? [{ step, table: step.table }] : []));

/** How much of a table is filled in, in words. */
export function filledWords({ rows, columns }: StepTable, cells: readonly TableCell[]): string {
  const all = rows.length * columns.length;
  if (cells.length === 0) return 'not filled in';
  return cells.length === all ? `all of ${all} cells filled in` : `${cells.length} of ${all} cells filled in`;
}

/** Cells of a step's table as far as they are filled in. */
export const cellsAt = (tables: readonly TableReading[], step: string): readonly TableCell[] =>
  tables.find((t) => t.step === step)?.cells ?? [];

/** Tables with the cells of one of them; one that is empty is none. */
export function withTable(tables: readonly TableReading[], step: string, cells: readonly TableCell[]): TableReading[] {
  const others = tables.filter((t) => t.step !== step);
  return cells.length === 0 ? others : [...others, { step, cells: [...cells] }];
}

/**
 * Tables of a draft by whether its protocol has them. What was filled in for another protocol, or stood in a run.json, is
 * not thrown away: it goes in again when its protocol is chosen.
 *
 * @param tables - of the draft
 * @param steps - of the protocol that is chosen
 */
export function sortedTables(
  tables: readonly TableReading[],
  steps: readonly Step[],
): { readonly fitting: TableReading[]; readonly strange: string[] } {
  const known = new Map(tableSteps(steps).map(({ step, table }) => [step.id, table]));
  const fits = ({ step, cells }: TableReading): boolean => {
    const table = known.get(step);
    return table !== undefined && misfits(cells, table).length === 0;
  };
  return { fitting: tables.filter(fits), strange: tables.filter((t) => !fits(t)).map((t) => t.step) };
}
