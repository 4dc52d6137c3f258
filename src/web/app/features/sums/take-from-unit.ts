import { SHEET_UNITS, type Conversion } from '#core/gear/sheet/sheet-units';
import type { SpecimenSheet } from '#contracts/specimen';
import { quantity as quantityOf } from '#core/measure/registry';
import { countingRun } from '#domain/catalogue/counting-run';
import type { FoundOn } from './sum';

/** A number of a unit, and where it comes from. */
export interface TakenNumber {
  readonly value: number;
  readonly source: 'measured' | 'data sheet';
}

/**
 * The number that a unit has for a field of a sum: what was measured, with the decimals that are shown of it, else what
 * its data sheet says.
 *
 * @returns null where it has neither
 */
export function takenFrom(
  sheet: Pick<SpecimenSheet, 'runs' | 'sheet'>,
  { quantity, field, unit }: FoundOn,
): TakenNumber | null {
  return measured(sheet, quantity) ?? claimed(sheet, field, unit);
}

function measured({ runs }: Pick<SpecimenSheet, 'runs'>, quantity: FoundOn['quantity']): TakenNumber | null {
  if (quantity === undefined) return null;
  const figure = countingRun(runs)?.run.measurements.find((m) => m.quantity === quantity);
  return figure && figure.value !== null && figure.bound === 'exact'
    ? { value: Number(figure.value.toFixed(quantityOf(quantity).decimals)), source: 'measured' }
    : null;
}

function claimed(
  { sheet }: Pick<SpecimenSheet, 'sheet'>,
  field: string | undefined,
  unit: FoundOn['unit'],
): TakenNumber | null {
  // prettier-ignore
  const value = sheet.find((e) => e.field === field)?.value;
  if (!value || value.type !== 'number') return null;
  const units: Readonly<Record<string, Conversion>> = SHEET_UNITS[unit];
  const converted = units[value.unit]?.(value.value);
  return converted !== undefined && Number.isFinite(converted) ? { value: converted, source: 'data sheet' } : null;
}
