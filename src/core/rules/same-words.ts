import { passageLikeness } from '../measure/passage-likeness';

/** What two readings are to each other, as far as a difference between them means something. */
export interface SameWords {
  readonly kind: 'same' | 'doubtful' | 'different';
  readonly text: string;
}

/** Readings of one text follow each other at least this well (labelled takes, see the check of the passage). */
const USUAL_LIKENESS = 0.75;
/** Readings of different texts hardly ever reach this (labelled takes, see the tests). */
const LEAST_LIKENESS = 0.5;

/**
 * Whether two spoken takes say the same words: the difference of two spectra is that of the units only where the voice
 * said the same.
 *
 * @param a - K-weighted power in steps of 100 ms
 * @param b - the same of the other take
 */
export function sameWords(a: Float64Array, b: Float64Array): SameWords {
  const likeness = passageLikeness(a, b);
  if (likeness === null)
    return { kind: 'different', text: 'One of the two holds no sound: there is nothing to compare.' };
  const figure = `their rise and fall agree by ${likeness.toFixed(2).replace('-', '−')}, readings of one text by ${USUAL_LIKENESS} or more`;
  if (likeness < LEAST_LIKENESS)
    return { kind: 'different', text: `The words differ (${figure}): no difference of the units can be told.` };
  if (likeness < USUAL_LIKENESS)
    return {
      kind: 'doubtful',
      text: `The words or their pace differ (${figure}): part of the difference is the reader's.`,
    };
  return { kind: 'same', text: '' };
}
