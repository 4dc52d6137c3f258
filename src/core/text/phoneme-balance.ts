import { PHONEME_FREQUENCIES } from './phoneme-frequencies';
import { southernSounds, spoken } from './southern-english';

/** One sound of a text against general English. */
export interface PhonemeShare {
  readonly phoneme: string;
  readonly count: number;
  /** Per cent of the text, and of general English. */
  readonly share: number;
  readonly expected: number;
}

/** How near the sounds of a text are to those of general English. */
export interface PhonemeBalance {
  readonly words: number;
  /** Words that the dictionary does not have; they are left out. */
  readonly unknown: readonly string[];
  readonly phonemes: number;
  readonly shares: readonly PhonemeShare[];
  /** Sounds of the table that do not occur. */
  readonly absent: readonly string[];
  /** Half the sum of all differences of shares, per cent: what would have to be exchanged. */
  readonly distance: number;
  /** The same for an average stretch of English of this length: that much is chance. */
  readonly chance: number;
  /** "balanced": no further off than chance allows twice over, and no sound above 0.5 % missing. */
  readonly verdict: 'balanced' | 'uneven' | 'too-short';
}

/** Fewer sounds cannot be spread over 43 classes. */
const LEAST_PHONEMES = 150;
/** A text is made of whole words, which bring their sounds in company: twice the chance of single sounds is allowed. */
const ALLOWED_TIMES_CHANCE = 2;
const COMMON_PERCENT = 0.5;

/**
 * Counts the sounds of a text and compares them with their frequency in running speech.
 *
 * @param text - English
 * @param lookUp - pronunciation of a word in small letters as ARPAbet with stress, or null
 */
export function phonemeBalance(text: string, lookUp: (word: string) => string | null): PhonemeBalance {
  const words =
    text
      .toLowerCase()
      .replace(/’/g, "'")
      .match(/[a-z]+(?:'[a-z]+)*/g) ?? [];
  const unknown = new Set<string>();
  const counts = new Map<string, number>();
  for (const word of words) {
    const pronunciation = spoken(word, lookUp);
    if (pronunciation === null) unknown.add(word);
    else for (const sound of southernSounds(pronunciation)) counts.set(sound, (counts.get(sound) ?? 0) + 1);
  }
  const phonemes = [...counts.values()].reduce((a, b) => a + b, 0);
  const total = Object.values(PHONEME_FREQUENCIES).reduce((a, b) => a + b, 0);
  const shares = Object.entries(PHONEME_FREQUENCIES).map(([phoneme, percent]): PhonemeShare => {
    const count = counts.get(phoneme) ?? 0;
    return { phoneme, count, share: phonemes === 0 ? 0 : (100 * count) / phonemes, expected: (100 * percent) / total };
  });
  const distance = shares.reduce((s, p) => s + Math.abs(p.share - p.expected), 0) / 2;
  const chance = phonemes === 0 ? 0 : shares.reduce((s, p) => s + meanDeviation(p.expected, phonemes), 0) / 2;
  const absent = shares.filter((p) => p.count === 0).map((p) => p.phoneme);
  const isCommonAbsent = shares.some((p) => p.count === 0 && p.expected >= COMMON_PERCENT);
  const isFar = distance > ALLOWED_TIMES_CHANCE * chance;
  return {
    words: words.length,
    unknown: [...unknown],
    phonemes,
    shares,
    absent,
    distance,
    chance,
    verdict: phonemes < LEAST_PHONEMES ? 'too-short' : isFar || isCommonAbsent ? 'uneven' : 'balanced',
  };
}

/** Mean absolute deviation of a share drawn n times (normal approximation of the binomial), per cent. */
const meanDeviation = (percent: number, n: number): number =>
  Math.sqrt((2 * percent * (100 - percent)) / (Math.PI * n));
