import { figureWords, plainProposal, type ProposingRule } from '../review-facts';

/** A low-cut that lowers the measured noise and is no better amplifier for it. */
export const hiddenLowCut: ProposingRule = ({ own }) => {
  const found = own.figures['hiddenLowCut'];
  if (!found || found.value === null || found.bound !== 'exact') return [];
  const figure = figureWords('hiddenLowCut', found);
  return [
    plainProposal(
      'cons',
      'hidden-low-cut',
      'hiddenLowCut',
      `Hidden low-cut at ${figure}: measured noise is lower for it, the amplifier is not`,
      `A low-cut with its corner at ${figure} was found between takes with it and without it`,
      'measured',
    ),
  ];
};
