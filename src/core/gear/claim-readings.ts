import type { ClaimedFigure } from './gear-kind';

/** Whether a claim says that it is A-weighted, in its unit or beside it. */
export const isAWeighted = ({ unit, condition }: ClaimedFigure): boolean =>
  unit.endsWith('(A)') || /\ba\b|a-weight/.test(condition.toLowerCase());

/** Why a claim that is not A-weighted cannot stand beside a figure that is. */
export const NOT_A_WEIGHTED = 'claimed unweighted or without a weighting, measured A-weighted';
