import type { VocabularyWord, WordPage } from '#contracts/vocabulary';

/** Years from the first time that a word was said to the last. */
export function yearsOf({ first, last }: Pick<VocabularyWord, 'first' | 'last'>): string {
  const [from, to] = [first.slice(0, 4), last.slice(0, 4)];
  return from === to ? from : `${from}–${to}`;
}

/** What else counts as a word, with how often it was said so. */
export const alsoWords = ({ also }: Pick<VocabularyWord, 'also'>): string =>
  also.map(({ word, said }) => (said > 1 ? `${word} ×${said}` : word)).join(', ');

/** How often a word was said of a unit, of how many times, with what that leaves open. */
export function shareWords({ said, heard, share, share90 }: WordPage['units'][number]): string {
  if (share === null || share90 === null) return `said ${said}×; nobody was asked for words of it`;
  const percent = (x: number): string => String(Math.round(100 * x));
  const times = said > heard ? `${said}× in ${heard} answers` : `${said} of ${heard} answers`;
  return `${times}: ${percent(share)} % (${percent(share90[0])}–${percent(share90[1])} %)`;
}
