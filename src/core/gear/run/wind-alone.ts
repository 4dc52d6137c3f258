import type { WindTake } from '../../measure/wind';
import type { AnalysedTake } from './analysed-take';

/** A take in the wind with what of it is wind. */
export type WindAlone<T> = T & Pick<WindTake, 'from' | 'bound'>;

/** Words that lie so far under the wind add less than a decibel to it. */
const WORDS_UNDER_DB = 6;
/** A take that is so far below the words by themselves cannot hold them. */
const WORDS_ABSENT_DB = 3;

/**
 * What of a take is wind: where words were found in it, what lies between them; where they leave no pause, all of it,
 * which is a limit. A take in which no words were found is wind from end to end where it lies far below them (nobody
 * spoke) or far above (they add nothing); between, they may be in it, drowned, and its A-weighted level is a limit.
 *
 * @param take - in the wind
 * @param wordsDbfs - A-weighted level of the same words without wind, at the gain of the take
 */
export function windAlone<T extends AnalysedTake>(take: T, wordsDbfs: number): WindAlone<T> {
  const { noise, speechS } = take;
  if (speechS > 0 && noise && noise.refused === null && noise.seconds > 0)
    return {
      ...take,
      thirdOctave: noise.thirdOctave,
      aDbfs: noise.a.levelDbfs,
      from: 'between the words',
      bound: noise.bound,
    };
  const re = take.aDbfs - wordsDbfs;
  return speechS === 0 && (re > WORDS_UNDER_DB || re < -WORDS_ABSENT_DB)
    ? { ...take, from: 'whole take', bound: 'exact' }
    : { ...take, from: 'whole take, whatever was spoken with it', bound: 'at-most' };
}
