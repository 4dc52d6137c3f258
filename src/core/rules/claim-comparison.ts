/** Figures of data sheets that Sediment can set beside its own. */
export const CLAIMED_QUANTITIES = [
  'sensitivity',
  'selfNoise',
  'responseLow3',
  'responseHigh3',
  'directivityIndex',
] as const;
export type ClaimedQuantity = (typeof CLAIMED_QUANTITIES)[number];

/** A claim as its maker gives it. */
export interface ClaimedFigure {
  readonly quantity: ClaimedQuantity;
  readonly value: number;
  readonly unit: string;
  readonly condition: string;
}

/** A claim beside the measured figure. */
export type ClaimComparison =
  | { readonly comparable: true; readonly value: number; readonly differenceInUnit: number | null }
  | { readonly comparable: false; readonly reason: string };

/** Unit that each figure is measured in, and what may be converted to it. */
const UNITS: Readonly<Record<ClaimedQuantity, Readonly<Record<string, (value: number) => number>>>> = {
  // 0 dB re 1 V/Pa is 1000 mV/Pa.
  sensitivity: { 'mV/Pa': (v) => v, 'dBV/Pa': (v) => 1000 * 10 ** (v / 20) },
  selfNoise: { 'dB SPL(A)': (v) => v, 'dB(A)': (v) => v, 'dB SPL': (v) => v, dB: (v) => v },
  responseLow3: { Hz: (v) => v, kHz: (v) => 1000 * v },
  responseHigh3: { Hz: (v) => v, kHz: (v) => 1000 * v },
  directivityIndex: { dB: (v) => v },
};

/**
 * Sets a claim beside a measured figure, or says why that would mislead: another unit, another weighting, or limits
 * without the tolerance they hold for.
 *
 * @param claim - as the maker gives it
 * @param measured - the measured value in the registry's unit; null where there is none
 */
export function compareClaim(claim: ClaimedFigure, measured: number | null): ClaimComparison {
  const convert = UNITS[claim.quantity][claim.unit];
  if (!convert) return { comparable: false, reason: `claimed in ${claim.unit}, which cannot be converted` };
  const reason = unlikeCondition(claim);
  if (reason) return { comparable: false, reason };
  const value = convert(claim.value);
  return { comparable: true, value, differenceInUnit: measured === null ? null : measured - value };
}

function unlikeCondition({ quantity, unit, condition }: ClaimedFigure): string | null {
  const text = condition.toLowerCase();
  if (quantity === 'selfNoise') {
    const isWeighted = unit.endsWith('(A)') || /\ba\b|a-weight/.test(text);
    if (/468|ccir|quasi/.test(text)) return 'claimed by the 468 curve, measured A-weighted';
    if (!isWeighted) return 'claimed unweighted or without a weighting, measured A-weighted';
  }
  if ((quantity === 'responseLow3' || quantity === 'responseHigh3') && !/[-−±]\s*3\s*db/.test(text)) {
    return text === ''
      ? 'claimed without a tolerance, measured at −3 dB'
      : `claimed at ${condition}, measured at −3 dB`;
  }
  return null;
}
