import type { QuantityId } from '../../measure/registry';

/** The short vocabulary: words that people have for microphones, and what speaks for them in figures. */
export const HEARD_WORDS = [
  'dull',
  'bright',
  'thin',
  'full',
  'boxy',
  'harsh',
  'sibilant',
  'noisy',
  'roomy',
  'natural',
] as const;
export type HeardWord = (typeof HEARD_WORDS)[number];

/** Words that cannot both be said of one sound. Common practice, no source. */
export const OPPOSITE_WORDS: readonly (readonly [HeardWord, HeardWord])[] = [
  ['dull', 'bright'],
  ['thin', 'full'],
];

/**
 * The measured quantities that a word is held against, and whether more of the word goes with a higher figure. Which
 * figures a word belongs to is common practice, no source.
 */
export const WORD_QUANTITIES: Partial<
  Record<HeardWord, readonly { readonly quantity: QuantityId; readonly sign: 1 | -1 }[]>
> = {
  sibilant: [
    { quantity: 'presence', sign: 1 },
    { quantity: 'sibilance', sign: 1 },
  ],
  bright: [{ quantity: 'presence', sign: 1 }],
  dull: [{ quantity: 'presence', sign: -1 }],
  noisy: [{ quantity: 'noiseReSpeechA', sign: 1 }],
  full: [{ quantity: 'proximity', sign: 1 }],
  roomy: [{ quantity: 'rearRejection', sign: -1 }],
};
