import { spokenWords } from '#core/rules/listening/spoken-words';
import { HEARD_WORDS } from '#core/rules/listening/vocabulary';
import type { Vocabulary, WordMeaning } from '#contracts/vocabulary';

/** Something that was said of a unit. */
export interface Said {
  readonly text: string;
  /** In their own words; otherwise a word of the list. */
  readonly isFree: boolean;
  readonly specimenId: string;
  /** Null where it was not noted who said it. */
  readonly listenerId: string | null;
  readonly day: string;
}

/** What words were made of by a person: by the word that was said. */
export type Meanings = ReadonlyMap<string, WordMeaning['meaning']>;

/** One word, said once. */
export interface SpokenWord extends Omit<Said, 'text' | 'isFree'> {
  readonly word: string;
  /** As it was said. */
  readonly spoken: string;
}

const LISTED: ReadonlySet<string> = new Set(HEARD_WORDS);

/** What a word counts as, at the end of the chain; null for no word of sound. */
export function meaningOf(word: string, meanings: Meanings): string | null {
  let now = word;
  // A chain as long as all meanings would be a circle; there is none, since it is refused.
  for (let step = 0; step <= meanings.size; step++) {
    const meaning = meanings.get(now);
    if (meaning?.kind === 'none') return null;
    if (meaning?.kind !== 'word') return now;
    now = meaning.as;
  }
  return word;
}

/** Why a word cannot be given a meaning; null where it can. */
export function meaningRefusal({ word, meaning }: WordMeaning, meanings: Meanings): string | null {
  if (meaning.kind === 'itself') return null;
  if (LISTED.has(word)) return `"${word}" is of the list that listeners are offered: it means itself.`;
  if (meaning.kind === 'none') return null;
  if (meaning.as === word) return 'A word counts as itself without that.';
  const end = meaningOf(meaning.as, meanings);
  if (end === null) return `"${meaning.as}" was set aside as no word of sound.`;
  return end === word ? `"${meaning.as}" counts as "${word}" already.` : null;
}

/** Everything that was said, word by word, by what it counts as; what is no word of sound is left out. */
export function wordsOf(said: readonly Said[], meanings: Meanings): SpokenWord[] {
  return said.flatMap(({ text, isFree, ...of }) => {
    const spoken = (isFree ? spokenWords(text) : [text]).flatMap((s) => {
      const word = meaningOf(s, meanings);
      return word === null ? [] : [{ word, spoken: s, ...of }];
    });
    // "Warm, warmish" of one breath, where one counts as the other, is said once.
    return spoken.filter((s, i) => spoken.findIndex((other) => other.word === s.word) === i);
  });
}

/** The vocabulary that listeners have made over the years. */
export function vocabularyOf(said: readonly Said[], meanings: Meanings): Vocabulary {
  const words = new Map<string, SpokenWord[]>();
  for (const one of wordsOf(said, meanings)) {
    const all = words.get(one.word);
    if (all) all.push(one);
    else words.set(one.word, [one]);
  }
  const aside = said
    .flatMap(({ text, isFree }) => (isFree ? spokenWords(text) : []))
    .filter((word) => meaningOf(word, meanings) === null);
  return {
    words: [...words]
      .map(([word, all]) => {
        const days = all.map((s) => s.day).sort();
        return {
          word,
          isListed: LISTED.has(word),
          said: all.length,
          // Nobody in particular is nobody who could be counted.
          listeners: new Set(all.flatMap((s) => s.listenerId ?? [])).size,
          units: new Set(all.map((s) => s.specimenId)).size,
          first: days[0],
          last: days[days.length - 1],
          also: counted(all.flatMap((s) => (s.spoken === word ? [] : [s.spoken]))),
        };
      })
      .sort((a, b) => b.said - a.said || a.word.localeCompare(b.word)),
    aside: counted(aside),
  };
}

function counted(words: readonly string[]): { word: string; said: number }[] {
  const counts = new Map<string, number>();
  for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  return [...counts].map(([word, said]) => ({ word, said })).sort((a, b) => b.said - a.said || a.word.localeCompare(b.word)); // prettier-ignore
}
