import { CLAIMED_QUANTITIES, claimRule, type ClaimedQuantity } from './kinds';
import { isAWeighted } from './claim-readings';
import type { ClaimedFigure } from './gear-kind';
import type { SheetValue } from './sheet/sheet-field';

/** A claim beside the measured figure. */
export type ClaimComparison =
  | { readonly comparable: true; readonly value: number; readonly differenceInUnit: number | null }
  | { readonly comparable: false; readonly reason: string };

/**
 * Sets a claim beside a measured figure, or says why that would mislead: another unit, another weighting, or limits
 * without the tolerance they hold for.
 *
 * @param claim - as the maker gives it
 * @param measured - the measured value in the registry's unit; null where there is none
 */
export function compareClaim(claim: ClaimedFigure, measured: number | null): ClaimComparison {
  const rule = claimRule(claim.quantity);
  const convert = rule?.units[claim.unit];
  if (!convert) return { comparable: false, reason: `claimed in ${claim.unit}, which cannot be converted` };
  const reason = rule?.unlike?.(claim) ?? null;
  if (reason !== null) return { comparable: false, reason };
  const value = convert(claim.value);
  return { comparable: true, value, differenceInUnit: measured === null ? null : measured - value };
}

/** Why nothing can be as good as a claim, where physics has a limit; null where it is possible, or not to be judged. */
export function impossibleClaim(claim: ClaimedFigure): string | null {
  const rule = claimRule(claim.quantity);
  const value = rule?.units[claim.unit]?.(claim.value);
  return value === undefined ? null : (rule?.beyond?.(claim, value) ?? null);
}

/** What stands in a field of a sheet, as a claim: a field that is named as a figure is one; null for any other. */
export function sheetClaim(field: string, value: SheetValue): (ClaimedFigure & { quantity: ClaimedQuantity }) | null {
  const quantity = CLAIMED_QUANTITIES.find((q) => q === field);
  return quantity && value.type === 'number'
    ? { quantity, value: value.value, unit: value.unit, condition: value.condition }
    : null;
}

/** A claim as a field of a sheet keeps it: what its unit says of the weighting is a condition. */
export function claimAsSheetValue({ value, unit, condition }: Omit<ClaimedFigure, 'quantity'>) {
  const isWeighted = unit.endsWith('(A)');
  const said = isWeighted && !isAWeighted({ quantity: '', value, unit: '', condition }) ? ['A-weighted'] : [];
  const bare = isWeighted ? unit.slice(0, -'(A)'.length).trim() : unit;
  return {
    type: 'number',
    value,
    unit: bare,
    condition: [...said, condition].filter((c) => c !== '').join(', '),
  } as const satisfies SheetValue;
}
