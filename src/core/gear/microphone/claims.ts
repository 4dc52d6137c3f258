import { asItIs, isAWeighted, NOT_A_WEIGHTED } from '../claim-readings';
import type { ClaimedFigure, ClaimRules } from '../gear-kind';

const HERTZ = { Hz: asItIs, kHz: (v: number) => 1000 * v };

/** What data sheets of microphones claim. */
export const PICKUP_CLAIMS = {
  // 0 dB re 1 V/Pa is 1000 mV/Pa.
  sensitivity: { units: { 'mV/Pa': asItIs, 'V/Pa': (v) => 1000 * v, 'dBV/Pa': (v) => 1000 * 10 ** (v / 20) } },
  selfNoise: {
    units: { 'dB SPL(A)': asItIs, 'dB(A)': asItIs, 'dB SPL': asItIs, dB: asItIs },
    unlike: (claim) => {
      if (/468|ccir|quasi/.test(claim.condition.toLowerCase())) return 'claimed by the 468 curve, measured A-weighted';
      return isAWeighted(claim) ? null : NOT_A_WEIGHTED;
    },
  },
  responseLow3: { units: HERTZ, unlike: unlikeLimits },
  responseHigh3: { units: HERTZ, unlike: unlikeLimits },
  directivityIndex: { units: { dB: asItIs } },
} as const satisfies ClaimRules;

function unlikeLimits({ condition }: ClaimedFigure): string | null {
  if (/[-−±]\s*3\s*db/.test(condition.toLowerCase())) return null;
  return condition === ''
    ? 'claimed without a tolerance, measured at −3 dB'
    : `claimed at ${condition}, measured at −3 dB`;
}
