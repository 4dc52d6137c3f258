import type { WindTake } from '../../measure/wind';
import type { AnalysedTake } from './analysed-take';

/** A take in the wind with what of it is wind. */
export type WindAlone<T> = T & Pick<WindTake, 'from' | 'bound'>;

/**
 * What of a take is wind: where words were found in it, what lies between them; where they leave no pause, all of it,
 * which is a limit. A take in which no words were found is wind from end to end: nobody spoke, or nobody is heard.
 *
 * @param take - in the wind
 */
export function windAlone<T extends AnalysedTake>(take: T): WindAlone<T> {
  const { noise, speechS } = take;
  if (speechS === 0) return { ...take, from: 'whole take', bound: 'exact' };
  if (!noise || noise.refused !== null || noise.seconds === 0)
    return { ...take, from: 'whole take, its words with it', bound: 'at-most' };
  return {
    ...take,
    thirdOctave: noise.thirdOctave,
    aDbfs: noise.a.levelDbfs,
    from: 'between the words',
    bound: noise.bound,
  };
}
