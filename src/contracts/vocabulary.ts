import { z } from 'zod';
import { daySchema } from './common';

/** A word as it is kept: in lower case, without blanks at its ends. */
export const wordSchema = z
  .string()
  .trim()
  .toLowerCase()
  .min(2, 'must be a word')
  .max(40, 'must not be longer than 40 characters')
  .regex(/\p{L}/u, 'must hold a letter')
  .regex(/^[^,;:/!?()|\n"“”„«»]*$/, 'must be one word, or some without commas between');

/** What a person makes of a word that somebody said: it counts as another one, is no word of sound, or stays itself. */
export const wordMeaningSchema = z.strictObject({
  word: wordSchema,
  meaning: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('itself') }),
    z.strictObject({ kind: z.literal('word'), as: wordSchema }),
    z.strictObject({ kind: z.literal('none') }),
  ]),
});
export type WordMeaning = z.output<typeof wordMeaningSchema>;
export type WordMeaningDraft = z.input<typeof wordMeaningSchema>;

const saidSchema = z.object({ word: z.string(), said: z.int() });

/** A word, over all the years. */
export const vocabularyWordSchema = z.object({
  word: z.string(),
  /** Of the short list that listeners are offered; others are their own. */
  isListed: z.boolean(),
  said: z.int().describe('How often, with all words that count as it'),
  listeners: z.int(),
  units: z.int(),
  first: daySchema,
  last: daySchema,
  /** Other words that count as it, as they were said. */
  also: z.array(saidSchema),
});
export type VocabularyWord = z.infer<typeof vocabularyWordSchema>;

export const vocabularySchema = z.object({
  /** Those that were said most first. */
  words: z.array(vocabularyWordSchema),
  /** Said, but no words of sound. */
  aside: z.array(saidSchema),
});
export type Vocabulary = z.infer<typeof vocabularySchema>;

/** A word against the units that it was said of, and against what was measured of them. */
export const wordPageSchema = z.object({
  word: z.string(),
  /** Those of which it is said most often first. */
  units: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      said: z.int(),
      /** In how many answers it could have been said; 0 where words were noted without any. */
      heard: z.int(),
      share: z.number().nullable(),
      share90: z.tuple([z.number(), z.number()]).nullable(),
    }),
  ),
  /** Null where too few units were heard and measured. */
  figure: z
    .object({
      quantity: z.string(),
      title: z.string(),
      rho: z.number(),
      count: z.int(),
      looked: z.int(),
      p: z.number(),
      others: z.array(z.object({ title: z.string(), rho: z.number(), count: z.int() })),
    })
    .nullable(),
  sentence: z.string(),
});
export type WordPage = z.infer<typeof wordPageSchema>;
