import { dictionary } from 'cmu-pronouncing-dictionary';
import { phonemeBalance } from '#core/text/phoneme-balance';
import type { PhonemeBalanceJson } from '#contracts/protocol-page';

/** Pronunciations of 134,000 English words (the CMU Pronouncing Dictionary). */
const lookUp = (word: string): string | null => (Object.hasOwn(dictionary, word) ? dictionary[word] : null);

/** How near the sounds of a text are to general English. */
export function countPhonemes(text: string): PhonemeBalanceJson {
  const balance = phonemeBalance(text, lookUp);
  return {
    ...balance,
    unknown: [...balance.unknown],
    shares: balance.shares.map((s) => ({ ...s })),
    absent: [...balance.absent],
  };
}
