import { normalBelow } from '#core/stats/normal-below';
import { plainProposal, type ProposingRule } from '../review-facts';

/** From this probability on it is said to be preferred; that of the upgrade advice. Common practice, no source. */
const CLEAR = 0.9;

/** Whether blind answers prefer it to the middle unit of its kind, or that one to it. */
export const heard: ProposingRule = ({ own }) => {
  if (!own.heard) return [];
  const { logWorth, se, answers } = own.heard;
  const probability = normalBelow(logWorth / se);
  const isPro = probability >= CLEAR;
  if (!isPro && probability > 1 - CLEAR) return [];
  const sure = Math.min(99, Math.floor(100 * Math.max(probability, 1 - probability)));
  return [
    plainProposal(
      isPro ? 'pros' : 'cons',
      'heard',
      'heard',
      isPro
        ? 'Preferred to the middle of its kind in blind tests'
        : 'The middle of its kind is preferred to it in blind tests',
      `${answers} blind ${answers === 1 ? 'answer' : 'answers'}; ${sure} % sure`,
      'heard',
      '',
    ),
  ];
};
