import { z } from 'zod';
import { daySchema } from './common';

/** What may be asked of those who hear a pack. */
export const PACK_ASKS = ['order', 'points', 'names'] as const;
export type PackAsk = (typeof PACK_ASKS)[number];

/** How a test goes out. */
export const packSettingsSchema = z.strictObject({
  title: z.string().trim().min(1, 'the pack needs a title for its listeners').max(120).describe('What listeners read: name no unit in it'), // prettier-ignore
  note: z.string().trim().max(1000).default('').describe('A word to listeners; line breaks are kept'),
  asks: z
    .array(z.enum(PACK_ASKS))
    .min(1, 'say what the pack asks for')
    .refine((asks) => new Set(asks).size === asks.length, 'asks for the same thing twice'),
  revealOn: daySchema.describe('Day on which the key is opened'),
  onSite: z.boolean().default(false).describe('Whether it can be heard on the published site, too'),
});
export type PackSettings = z.infer<typeof packSettingsSchema>;

/** What is written down before the pack goes out, and shown on the day: which clip is what. Open format. */
export const blindKeySchema = z.object({
  format: z.literal('sediment-blind-key/1'),
  title: z.string(),
  question: z.string(),
  sealedOn: daySchema,
  revealOn: daySchema,
  nonce: z.string().describe('256 random bits in hexadecimal: without them the few possible keys could all be tried'),
  clips: z.array(
    z.object({
      letter: z.string(),
      name: z.string().describe('Code name'),
      unit: z.string(),
      part: z.string().describe('What the clip is there for, where it is not a unit that is ranked'),
      sha256: z.string().describe('Of the file as it goes out'),
    }),
  ),
});
export type BlindKey = z.infer<typeof blindKeySchema>;

/** What the archive keeps of a pack beside its key. */
export const packDocumentSchema = z.object({
  /** In the order in which the pack offers them: units as they were called that day. */
  names: z.array(z.object({ specimenId: z.string(), name: z.string() })),
});
export type PackDocument = z.infer<typeof packDocumentSchema>;

/** A pack as its operator sees it. */
export const packPageSchema = z.object({
  /** First signs of the key's hash: answers name it. */
  tag: z.string(),
  keySha256: z.string(),
  sealedOn: daySchema,
  /** Code names in the order of their letters. */
  clips: z.array(z.string()),
  /** Null until revealed. */
  openingCode: z.string().nullable(),
  answers: z.object({
    listeners: z.int(),
    passed: z.int().describe('Who put the copy without highs below its original'),
    failed: z.int(),
    share: z.number().describe('Of those who listened, as far as their checks tell'),
    share90: z.tuple([z.number(), z.number()]),
  }),
});
export type PackPage = z.infer<typeof packPageSchema>;

/** Votes for the best one, as a poll counts them. */
const votesSchema = z.record(z.string(), z.int().min(0));

/** One answer that came back, as it was understood. */
export const returnedAnswerSchema = z.object({
  /** Where it stands in what was given. */
  line: z.int(),
  /** What was given, shortened. */
  text: z.string(),
  listener: z.string().nullable().describe('Null where nobody is named'),
  order: z.array(z.string()).describe('Letters, best first'),
  best: z.string().nullable(),
  points: z.record(z.string(), z.number()),
  names: z.record(z.string(), z.string()).describe('Units by letters'),
  votes: votesSchema.nullable(),
  /** What is not sure about it, in words. */
  doubts: z.array(z.string()),
  /** Why it cannot be kept, in words. */
  problem: z.string().nullable(),
  /** This listener has answered before, or says the same thing twice. */
  isThere: z.boolean(),
});
export type ReturnedAnswer = z.infer<typeof returnedAnswerSchema>;

const textSchema = z.string().min(1, 'there is nothing to read').max(1_000_000, 'is longer than a million letters: give it in parts'); // prettier-ignore
export const readReturnedSchema = z.strictObject({ text: textSchema });
export const returnedSchema = z.object({ answers: z.array(returnedAnswerSchema) });
export const keepReturnedSchema = z.strictObject({
  text: textSchema,
  /** Lines whose answers are kept, and what is said about them. */
  kept: z
    .array(
      z.strictObject({
        line: z.int().min(0),
        listener: z.string().trim().max(120).nullable(),
        /** Another person of the same name than the one who has answered. */
        isSomebodyElse: z.boolean().default(false),
      }),
    )
    .min(1, 'choose the answers that are to be kept')
    .max(5000),
});
export type KeepReturned = z.infer<typeof keepReturnedSchema>;
/** Keeping tells how many were new. */
export const keptReturnedSchema = z.object({ kept: z.int(), skipped: z.int() });
