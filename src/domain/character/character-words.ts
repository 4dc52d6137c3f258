import { quantity } from '#core/measure/registry';
import { isBetterBeyondDoubt } from '#core/rules/figures-apart';
import { HEARD_WORDS, OPPOSITE_WORDS, WORD_QUANTITIES } from '#core/rules/listening/vocabulary';
import type { Character } from '#contracts/character';
import type { House } from '#contracts/review';
import { figureWords, othersOf, type ReviewFacts } from '../review/review-facts';

/**
 * Words that figures speak for: those of a unit that lie beyond as many of its kind as this desk calls standing out, by
 * more than both leave open, on the side that goes with the word.
 */
export function measuredWords(
  facts: Pick<ReviewFacts, 'own' | 'units'>,
  { standsOutPercent, leastUnits }: Pick<House, 'standsOutPercent' | 'leastUnits'>,
): Character['measured'] {
  return HEARD_WORDS.flatMap((word) =>
    (WORD_QUANTITIES[word] ?? []).flatMap(({ quantity: id, sign }) => {
      const own = facts.own.figures[id];
      const others = othersOf(facts).flatMap((u) => ((u.figures[id]?.value ?? null) === null ? [] : [u.figures[id]]));
      if (!own || own.value === null || others.length + 1 < leastUnits) return [];
      const beyond = others.filter((o) => isBetterBeyondDoubt(own, o, sign === 1 ? 'higher' : 'lower')).length;
      if (100 * beyond < standsOutPercent * others.length) return [];
      const side = sign === 1 ? 'more' : 'less';
      return [{ word, why: `${quantity(id).name} ${figureWords(id, own)}: ${side} than ${beyond} of ${others.length} others of its kind` }]; // prettier-ignore
    }),
  );
}

/** Words of the maker, as they stand in the sheet. */
export function makersWords(sheet: ReviewFacts['sheet']['sheet']): string[] {
  const entry = sheet.find((e) => e.field === 'makersWords');
  return entry?.value?.type === 'words' ? [...entry.value.words] : [];
}

/** Where one source says a word and another its opposite. */
export function contradictions({ heard, measured, maker }: Pick<Character, 'heard' | 'measured' | 'maker'>): string[] {
  const sources = [
    { name: 'its maker', words: maker.map((w) => w.toLowerCase()) },
    { name: 'listeners', words: heard.map((h) => h.word.toLowerCase()) },
    { name: 'the figures', words: measured.map((m) => m.word.toLowerCase()) },
  ];
  const says = (name: string, word: string): string => `${name} ${name === 'its maker' ? 'says' : 'say'} ${word}`;
  return sources.flatMap((one, i) =>
    sources.slice(i + 1).flatMap((other) =>
      OPPOSITE_WORDS.flatMap(([a, b]) =>
        [
          [a, b],
          [b, a],
        ].flatMap(([x, y]) =>
          one.words.includes(x) && other.words.includes(y) ? [`${says(one.name, x)}, ${says(other.name, y)}`] : [],
        ),
      ),
    ),
  );
}

/** All words for a unit, by where they come from. */
export function characterWords(facts: ReviewFacts, house: House): Omit<Character, 'uses'> {
  const words = { heard: facts.sheet.words, measured: measuredWords(facts, house), maker: makersWords(facts.sheet.sheet) }; // prettier-ignore
  return { ...words, contradictions: contradictions(words) };
}
