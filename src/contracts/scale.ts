import { z } from 'zod';
import { categorySchema, idSchema, nameSchema } from './common';
import { attributeSchema, worthSchema } from './listening';

/** Which answers make the scale. */
export const scaleRequestSchema = z.strictObject({
  category: categorySchema.default('microphone'),
  attribute: attributeSchema.default('preference'),
  voice: z.string().nullable().default(null),
  use: z.string().nullable().default(null),
  /** Years after which an answer counts half; null: answers do not fade. */
  halfLifeYears: z.number().min(0.25).max(50).nullable().default(null),
  /** Places and strata are those among these units, and no other is listed; null: all. Every answer tells of them. */
  among: z.array(idSchema).max(20_000).nullable().default(null),
  /** Whether order, level and shown names are tested as well, which takes further fits. */
  withEffects: z.boolean().default(true),
});
export type ScaleRequest = z.infer<typeof scaleRequestSchema>;

const effectSchema = z.object({
  name: z.enum(['order', 'level', 'sighted']),
  estimate: z.number(),
  se: z.number(),
  p: z.number(),
  answers: z.int(),
  words: z.string(),
});

export const scaleSchema = z.object({
  items: z.array(
    worthSchema.extend({
      answers: z.int(),
      component: z.int(),
      stratum: z.int(),
      /** Points that the heard curve gives; null where too few answers stand for it. */
      heardPoints: z.number().nullable(),
      /** Points given by hand for sound, where there are any. */
      handPoints: z.number().nullable(),
    }),
  ),
  components: z.int(),
  bridges: z
    .array(z.object({ a: z.string(), b: z.string() }))
    .describe('Comparisons that alone hold two parts together'),
  tie: z.number(),
  answers: z.int(),
  listeners: z.int(),
  tasteSd: z.number().describe('Deviation of a listener’s own log worths about those of all'),
  iterations: z.int(),
  logLikelihood: z.number(),
  effects: z.array(effectSchema),
  voices: z.array(z.string()),
  uses: z.array(z.string()),
  words: z.array(
    z.object({
      word: z.string(),
      quantity: z.string(),
      title: z.string(),
      unit: z.string(),
      points: z.array(z.object({ id: z.string(), name: z.string(), said: z.int(), heard: z.int(), value: z.number() })),
      /** Spearman's correlation of how often the word was said with the figure; null for fewer than four units. */
      correlation: z.number().nullable(),
    }),
  ),
});
export type Scale = z.infer<typeof scaleSchema>;

/** Where the new one settles, and what to ask next. */
export const placingSchema = z.object({
  specimenId: z.string(),
  name: z.string(),
  answers: z.int(),
  place90: z.tuple([z.number(), z.number()]),
  units: z.int(),
  strata: z.int(),
  likeliest: z.int(),
  probabilities: z.array(z.number()),
  isSettled: z.boolean(),
  /** What was asked for, and how far it is known. */
  goal: z.object({
    kind: z.enum(['stratum', 'half', 'beats']),
    /** Name of the yardstick. */
    than: z.string().nullable(),
    answer: z.int().describe('Stratum; or 1 for the better half, or for beats, and 2 for not'),
    probability: z.number(),
    isSettled: z.boolean(),
    expected: z
      .object({ median: z.int(), most: z.int().nullable() })
      .nullable()
      .describe('Questions still to be expected: in half of all cases, in nine of ten; null for more than 200'),
  }),
  /** Where its measured points suggest to begin, if that was asked for. */
  hint: z.object({ logWorth: z.number(), sd: z.number() }).nullable(),
  listeners: z.int(),
  others: z.array(z.object({ id: z.string(), name: z.string() })),
  question: z
    .object({
      kind: z.enum(['pair', 'heat']),
      takes: z.array(z.object({ takeId: z.string(), specimenId: z.string() })),
      sdNow: z.number(),
      sdAfter: z.number(),
    })
    .nullable(),
  /** Why there is no question: no clip of a like step, nothing to compare with. */
  problem: z.string().nullable(),
});
export type Placing = z.infer<typeof placingSchema>;
export const placeRequestSchema = scaleRequestSchema.extend({
  kind: z.enum(['pair', 'heat']).default('pair'),
  /** What is to be known: its stratum, whether it belongs to the better half, or whether it beats another unit. */
  goal: z.enum(['stratum', 'half', 'beats']).default('half'),
  /** The yardstick of "beats"; without one, the unit with the most answers. */
  than: idSchema.nullable().default(null),
  /** Whether measured points may hint at where to begin. */
  usesFigures: z.boolean().default(false),
  /** Step that is heard; its newest take of each unit. */
  step: z.string(),
});
/** Whose placing it is, from its first question to its last; the page draws the number. */
const placingSchemaPart = { placing: z.uuid(), listener: nameSchema };
/** Body of a request that takes an answer back: this listener's last one of this placing, and no other. */
export const placeUndoSchema = placeRequestSchema.extend(placingSchemaPart);
export const placeAnswerSchema = placeRequestSchema.extend({
  ...placingSchemaPart,
  /** Specimens, best first. */
  order: z.array(idSchema).min(2).max(6),
  isTie: z.boolean().default(false),
  /** In which order they were offered. */
  offered: z.array(idSchema).min(2).max(6),
  residualsLu: z.array(z.number()).max(6).default([]),
});
