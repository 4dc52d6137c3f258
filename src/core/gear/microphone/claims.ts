import { isAWeighted, NOT_A_WEIGHTED } from '../claim-readings';
import type { ClaimedFigure, ClaimRules } from '../gear-kind';
import { asItIs, SHEET_UNITS } from '../sheet/sheet-units';

/** What data sheets of microphones claim. */
export const PICKUP_CLAIMS = {
  sensitivity: { units: SHEET_UNITS['mV/Pa'] },
  selfNoise: {
    units: { 'dB SPL(A)': asItIs, 'dB(A)': asItIs, 'dB SPL': asItIs, dB: asItIs },
    unlike: (claim) => {
      if (/468|ccir|quasi/.test(claim.condition.toLowerCase())) return 'claimed by the 468 curve, measured A-weighted';
      return isAWeighted(claim) ? null : NOT_A_WEIGHTED;
    },
  },
  responseLow3: { units: SHEET_UNITS.Hz, unlike: unlikeLimits },
  responseHigh3: { units: SHEET_UNITS.Hz, unlike: unlikeLimits },
  directivityIndex: { units: { dB: asItIs } },
  batteryLife: { units: SHEET_UNITS.h },
} as const satisfies ClaimRules;

function unlikeLimits({ condition }: ClaimedFigure): string | null {
  if (/[-−±]\s*3\s*db/.test(condition.toLowerCase())) return null;
  return condition === ''
    ? 'claimed without a tolerance, measured at −3 dB'
    : `claimed at ${condition}, measured at −3 dB`;
}
