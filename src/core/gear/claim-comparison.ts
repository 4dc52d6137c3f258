import { claimRule } from './kinds';
import type { ClaimedFigure } from './gear-kind';

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
