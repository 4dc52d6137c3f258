import { z } from 'zod';
import { categorySchema, daySchema, sha256Schema } from './common';
import { timeMapSchema } from './compare';
import { countedPriceSchema } from './counted-price';
import { conditionGridSchema } from './curves';
import { boundSchema } from './measurement';
import { changeSchema, reviewTextSchema } from './review';

/** A figure as it stood, with all that it takes to hold it against another one. */
const frozenFigureSchema = z.object({
  quantity: z.string(),
  name: z.string(),
  unit: z.string(),
  group: z.string().describe('Of the registry: noise, sound, …'),
  value: z.number().nullable(),
  uncertainty: z.number().nullable().describe('Standard, of this reading'),
  anotherReading: z.number().nullable().describe('Standard, of reading it again'),
  bound: boundSchema,
  condition: z.string(),
  notMeasured: z.string().nullable(),
  day: daySchema,
  protocol: z.string().describe('Name and version'),
  text: z.string().describe('As it is shown'),
});
export type FrozenFigure = z.infer<typeof frozenFigureSchema>;

const frozenRowSchema = z.object({
  unit: z.string().describe('Number in the archive'),
  name: z.string(),
  place: z.int(),
  stratum: z.int(),
  composite: z.number(),
  composite90: z.tuple([z.number(), z.number()]),
  rank90: z.tuple([z.number(), z.number()]),
});
export type FrozenRow = z.infer<typeof frozenRowSchema>;

const frozenRankingSchema = z.object({
  own: z.string().describe('Number of the unit that the edition is of'),
  rulesVersion: z.int(),
  stratumProbability: z.number(),
  criteria: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      meaning: z.string(),
      share: z.number().describe('Of the whole, 0…1'),
      points: z.number().nullable(),
      why: z.string(),
    }),
  ),
  of: z.int().describe('Units that were ranked'),
  rows: z.array(frozenRowSchema).describe('Best first; of a long ranking its head and what stands around the unit'),
});

const frozenLaneSchema = z.object({
  sha256: sha256Schema.describe('Of the clip as it was recorded'),
  unit: z.string(),
  name: z.string(),
  words: z.string(),
  date: daySchema,
  role: z.enum(['this unit', 'without it', 'another unit', 'yardstick']),
  appliedDb: z.number().describe('What it is played with, so that all are equally loud'),
  durationS: z.number(),
  isLoud: z.boolean(),
  map: timeMapSchema
    .nullable()
    .describe('From the times of the first lane to its own; null where it runs with it, or cannot be laid over it'),
});
export type FrozenLane = z.infer<typeof frozenLaneSchema>;

const frozenDeckSchema = z.object({
  step: z.string(),
  title: z.string(),
  targetLufs: z.number().nullable(),
  lanes: z.array(frozenLaneSchema),
});
export type FrozenDeck = z.infer<typeof frozenDeckSchema>;

/** Words for the unit by where they come from; an edition of earlier days has none. */
const frozenWordsSchema = z
  .object({
    heard: z
      .array(z.object({ word: z.string(), count: z.int() }))
      .describe('Of the list that listeners are offered: their own words are theirs'),
    measured: z.array(z.object({ word: z.string(), why: z.string() })).describe('By rule, from figures that stand out'),
    maker: z.array(z.string()).describe('As the maker says'),
    contradictions: z.array(z.string()),
  })
  .default({ heard: [], measured: [], maker: [], contradictions: [] });
export type FrozenWords = z.infer<typeof frozenWordsSchema>;

/** What was published, as it was: text, figures, ranking, rules, clips by hash. It is never changed. */
export const editionSchema = z.object({
  format: z.literal('sediment-edition/1'),
  review: z.string(),
  number: z.int().min(1),
  publishedOn: daySchema,
  desk: z.string(),
  clipLicence: z.string(),
  unit: z.object({
    id: z.string(),
    maker: z.string(),
    model: z.string(),
    label: z.string(),
    category: categorySchema,
    kind: z.string(),
  }),
  text: reviewTextSchema,
  figures: z.array(frozenFigureSchema),
  claims: z.array(z.object({ name: z.string(), claimed: z.string(), measured: z.string(), remark: z.string() })),
  price: countedPriceSchema.nullable().describe('The one that its rules count; without rules the latest'),
  prices: z.array(countedPriceSchema).describe('All that counted, newest first'),
  ranking: frozenRankingSchema.nullable(),
  frontier: z
    .object({
      currency: z.string(),
      units: z.array(
        z.object({
          unit: z.string(),
          name: z.string(),
          price: z.number(),
          composite: z.number(),
          isOnFrontier: z.boolean(),
        }),
      ),
    })
    .nullable(),
  response: z
    .object({ points: z.array(z.object({ hz: z.number(), db: z.number() })), lowestValidHz: z.number() })
    .nullable(),
  grid: conditionGridSchema.nullable(),
  decks: z.array(frozenDeckSchema),
  chapters: z
    .array(z.object({ atS: z.number(), title: z.string() }))
    .describe('Of the takes one after the other, in the order of the protocol'),
  settings: z
    .array(z.object({ step: z.string(), text: z.string() }))
    .describe('What every take was made with: gain, distance, angle, and what else was noted'),
  words: frozenWordsSchema,
  photographs: z.array(
    z.object({
      sha256: sha256Schema,
      format: z.string(),
      caption: z.string(),
      widthPx: z.int(),
      heightPx: z.int(),
    }),
  ),
  runs: z.array(z.object({ date: daySchema, protocol: z.string(), version: z.int(), rig: z.string().nullable() })),
  made: z.object({ software: z.string(), algorithm: z.int(), runFigures: z.int() }),
  changes: z.array(changeSchema).describe('Against the edition before'),
});
export type Edition = z.infer<typeof editionSchema>;
