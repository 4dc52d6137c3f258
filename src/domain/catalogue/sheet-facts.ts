import { gearKind } from '#core/gear/kinds';
import { classesOf, sheetNumber } from '#core/gear/sheet/sheet-value';
import type { SheetValue } from '#core/gear/sheet/sheet-field';
import { cellKey, type CellFacts, type SheetFacts } from '#core/rules/criterion-points';
import type { Category } from '#contracts/common';
import type { TableCell } from '#contracts/table-reading';

/** What stands in a field of a unit's sheet. */
export interface SheetRow {
  readonly field: string;
  readonly value: SheetValue;
}

/** A table as it was filled in. */
export interface TableRow {
  readonly protocol: string;
  readonly step: string;
  readonly cells: readonly TableCell[];
}

/** What a sheet says, as units of a kind are compared by it; texts compare with nothing. */
export function sheetFacts(kind: Category, rows: readonly SheetRow[]): SheetFacts {
  const fields = new Map(gearKind(kind).sheet.map((f) => [f.id, f]));
  return Object.fromEntries(
    rows.flatMap(({ field: id, value }): [string, SheetFacts[string]][] => {
      const field = fields.get(id);
      if (!field) return [];
      if (value.type === 'number') {
        const number = sheetNumber(field, value);
        return number === null ? [] : [[id, number]];
      }
      if (value.type === 'words') return [[id, value.words]];
      return value.type === 'yes-no' ? [[id, value.yes]] : [];
    }),
  );
}

/** Cells of tables; of a cell that several tables have, the first counts (they come newest first). */
export function cellFacts(tables: readonly TableRow[]): CellFacts {
  const facts = new Map<string, number>();
  for (const { protocol, step, cells } of tables)
    for (const { row, column, value } of cells) {
      const key = cellKey({ protocol, step, row, column });
      if (!facts.has(key)) facts.set(key, value);
    }
  return Object.fromEntries(facts);
}

/** Classes of a unit by the fields that divide its kind. */
export function unitClasses(kind: Category, rows: readonly SheetRow[]): Record<string, string[]> {
  const values = new Map(rows.map((r) => [r.field, r.value]));
  return Object.fromEntries(
    gearKind(kind).sheet.flatMap((field): [string, string[]][] => {
      const classes = classesOf(field, values.get(field.id));
      return classes.length === 0 ? [] : [[field.id, [...classes]]];
    }),
  );
}
