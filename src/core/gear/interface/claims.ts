import { DBU_VOLTS } from '../../measure/self-noise';
import { asItIs, isAWeighted, NOT_A_WEIGHTED } from '../claim-readings';
import type { ClaimedFigure, ClaimRules } from '../gear-kind';

/** 0 dBV in dBu. */
const DBV_IN_DBU = -20 * Math.log10(DBU_VOLTS);
const fromDbv = (value: number): number => value + DBV_IN_DBU;

const otherSource = ({ condition }: ClaimedFigure): string | null => {
  const ohms = /(\d+)\s*(?:Ω|ohm)/i.exec(condition)?.[1];
  return ohms === undefined || ohms === '150' ? null : `claimed with ${ohms} Ω, measured with 150 Ω`;
};

/** What data sheets of interfaces and preamps claim. */
export const LINE_CLAIMS = {
  einA: {
    units: { 'dBu(A)': asItIs, dBu: asItIs, 'dBV(A)': fromDbv, dBV: fromDbv },
    unlike: (claim) => (isAWeighted(claim) ? otherSource(claim) : NOT_A_WEIGHTED),
  },
  einZ: {
    units: { dBu: asItIs, dBV: fromDbv },
    unlike: (claim) => (isAWeighted(claim) ? 'claimed A-weighted, measured unweighted' : otherSource(claim)),
  },
} as const satisfies ClaimRules;
