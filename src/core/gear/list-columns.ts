import { isQuantity, type QuantityId } from '../measure/registry';
import type { GearKind } from './gear-kind';
import { unitsOf } from './sheet/sheet-units';
import { quantity } from '../measure/registry';

/** Before the name of a field: a claim of a data sheet and the figure that is measured of it have one name. */
const OF_SHEET = 'sheet:';

/** A column that lists of a kind can show: a figure, or a field of the data sheet. */
export type ListColumn =
  | { readonly id: QuantityId; readonly name: string; readonly from: 'figure' }
  | {
      readonly id: string;
      readonly field: string;
      readonly name: string;
      readonly unit: string;
      readonly from: 'sheet';
    };

/** Fields of the sheet among the columns of a kind. */
export const sheetColumns = (columns: readonly string[]): string[] =>
  columns.filter((c) => c.startsWith(OF_SHEET)).map((c) => c.slice(OF_SHEET.length));

/** Columns that lists of a kind show: those that were chosen, or its key figures. What is gone is passed over. */
export function listColumns(kind: GearKind): ListColumn[] {
  return (kind.columns ?? kind.keyFigures).flatMap((id) => listColumn(kind, id) ?? []);
}

function listColumn(kind: GearKind, id: string): ListColumn | null {
  if (isQuantity(id)) {
    const { name, shortName } = quantity(id);
    return { id, name: shortName ?? name, from: 'figure' };
  }
  const field = kind.sheet.find((f) => `${OF_SHEET}${f.id}` === id && f.type !== 'text');
  if (!field) return null;
  return { id, field: field.id, name: field.name, unit: field.type === 'number' ? unitsOf(field.unit)[0] : '', from: 'sheet' }; // prettier-ignore
}

/**
 * Columns that lists of a kind could show.
 *
 * @param kind - whose lists they are
 * @param figures - that units of the kind have, or could have
 */
export function possibleColumns(kind: GearKind, figures: readonly QuantityId[]): ListColumn[] {
  const ids = [...new Set<string>([...kind.keyFigures, ...figures]), ...kind.sheet.map((f) => `${OF_SHEET}${f.id}`)];
  return ids.flatMap((id) => listColumn(kind, id) ?? []);
}
