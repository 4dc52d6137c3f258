import type { ClaimedFigure, ClaimRules } from '../gear-kind';

/** 0 dBV in dBu: 1 V re √0.6 V. */
const DBV_IN_DBU = -10 * Math.log10(0.6);
const asItIs = (value: number): number => value;
const fromDbv = (value: number): number => value + DBV_IN_DBU;

const isWeighted = ({ unit, condition }: ClaimedFigure): boolean =>
  unit.endsWith('(A)') || /\ba\b|a-weight/.test(condition.toLowerCase());
const otherSource = ({ condition }: ClaimedFigure): string | null => {
  const ohms = /(\d+)\s*(?:Ω|ohm)/i.exec(condition)?.[1];
  return ohms === undefined || ohms === '150' ? null : `claimed with ${ohms} Ω, measured with 150 Ω`;
};

/** What data sheets of interfaces and preamps claim. */
export const LINE_CLAIMS = {
  einA: {
    units: { 'dBu(A)': asItIs, dBu: asItIs, 'dBV(A)': fromDbv, dBV: fromDbv },
    unlike: (claim) => (isWeighted(claim) ? otherSource(claim) : 'claimed unweighted or without a weighting, measured A-weighted'), // prettier-ignore
  },
  einZ: {
    units: { dBu: asItIs, dBV: fromDbv },
    unlike: (claim) => (isWeighted(claim) ? 'claimed A-weighted, measured unweighted' : otherSource(claim)),
  },
} as const satisfies ClaimRules;
