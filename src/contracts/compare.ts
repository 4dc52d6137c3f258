import { z } from 'zod';
import { lowCutSchema } from './comparisons';
import { daySchema, idSchema, nameSchema, sha256Schema } from './common';

/** How levels of clips that are compared are brought together. */
export const MATCHES = ['loudness', 'gain', 'none'] as const;
/** Most lanes side by side. */
export const MOST_LANES = 8;

/** What a binary fraction leaves of a difference of hundredths. */
const REST_S = 1e-9;
const SHORTEST_LOOP_S = 0.4;
/** Whether a stretch is long enough to be heard as a loop. */
export const isLoop = (fromS: number, toS: number): boolean => toS - fromS >= SHORTEST_LOOP_S - REST_S;

const loopSchema = z
  .strictObject({ fromS: z.number().min(0), toS: z.number().positive() })
  .refine(({ fromS, toS }) => isLoop(fromS, toS), { message: `a loop lasts ${SHORTEST_LOOP_S} s at least` });

/** What is compared, and how. */
export const compareRequestSchema = z.strictObject({
  takes: z.array(idSchema).min(1).max(MOST_LANES, `at most ${MOST_LANES} clips can be compared`),
  /** The lane that differences are shown against. */
  zero: idSchema,
  match: z.enum(MATCHES).default('loudness'),
  /** Seconds of the zero lane; null for the whole clip. */
  loop: loopSchema.nullable().default(null),
});
export type CompareRequest = z.infer<typeof compareRequestSchema>;

const bandsSchema = z.array(z.object({ centreHz: z.number(), db: z.number().nullable() }));
const figureSchema = z.object({ value: z.number().nullable(), uncertainty: z.number().nullable(), unit: z.string() });

const takeWordsSchema = z
  .string()
  .describe('Voice, place, mount, what was done to it, its codec: in words; empty where it is as it came');

/** One clip of a comparison. */
export const compareLaneSchema = z.object({
  takeId: z.string(),
  specimenId: z.string(),
  unit: z.string(),
  words: takeWordsSchema,
  date: daySchema,
  protocol: z.string(),
  protocolVersion: z.int(),
  rig: z.string().nullable(),
  sha256: sha256Schema,
  durationS: z.number(),
  sampleRateHz: z.number(),
  takeGainDb: z.number().nullable(),
  /** Of the loop where there is one, else of the clip; null where it has none. */
  loudnessLufs: z.number().nullable(),
  truePeakDbtp: z.number().nullable(),
  /** What this lane is played with. */
  appliedDb: z.number(),
  isLoud: z.boolean().describe('Needs the hearing caution: clipped, or at full level'),
  /** Why this lane cannot be held against the zero lane; null where it can. */
  warning: z.string().nullable(),
  spectrum: bandsSchema.describe('Third octaves of the whole clip at matched loudness'),
  noise: bandsSchema.nullable().describe('Third octaves of the pauses, at the same gain'),
  figures: z.record(z.string(), figureSchema),
});
export type CompareLane = z.infer<typeof compareLaneSchema>;

/** Two takes of one unit that differ by one thing alone. */
const pairSchema = z.object({
  varies: z.string(),
  withTake: z.string(),
  withoutTake: z.string(),
  isOutsideNoise: z
    .boolean()
    .describe('A noise from outside: held against each other at equal gain, never at one loudness'),
  gainRefused: z.string().nullable().describe('Why the gains of the two cannot be evened out; null where they can'),
  /** Loudness gained at equal gain of the rig. */
  addedGainDb: z.number().nullable(),
  /** Change of the A-weighted noise re speech, with its uncertainty. */
  noiseChangeDb: z.number().nullable(),
  noiseUncertaintyDb: z.number().nullable(),
  /** Taken away by third octaves: words and their pauses at one loudness, a noise from outside at one gain. */
  removed: z.array(z.object({ centreHz: z.number(), noiseDb: z.number().nullable(), speechDb: z.number().nullable() })),
});

export const compareTableSchema = z.object({
  /** Kind of gear of the units that are compared. */
  category: z.string(),
  step: z.string(),
  stepTitle: z.string(),
  lanes: z.array(compareLaneSchema),
  /** Common loudness; null where levels are not matched by loudness. */
  targetLufs: z.number().nullable(),
  /** The take whose peaks hold all levels down; null where none does. */
  heldBackBy: z.string().nullable(),
  gainRefused: z
    .string()
    .nullable()
    .describe('Why the gains of the takes could not be evened out: all are as they are then'),
  pair: pairSchema.nullable(),
});
export type CompareTable = z.infer<typeof compareTableSchema>;

/** A take that can be put into a comparison. */
export const compareCandidateSchema = z.object({
  takeId: z.string(),
  specimenId: z.string(),
  unit: z.string(),
  words: takeWordsSchema,
  isProcessed: z.boolean().describe('Worked on after it was recorded: never ranked as it came'),
  step: z.string(),
  stepTitle: z.string(),
  category: z.string(),
  date: daySchema,
  durationS: z.number(),
  protocol: z.string(),
  protocolVersion: z.int(),
});
export type CompareCandidate = z.infer<typeof compareCandidateSchema>;

export const timeMapSchema = z.object({
  kind: z.enum(['performance', 'phrases']),
  anchors: z.array(z.tuple([z.number(), z.number()])).min(1),
});

/** Difference of one lane to the zero lane, from the samples. */
export const laneDifferenceSchema = z.object({
  takeId: z.string(),
  map: timeMapSchema,
  method: z.enum(['transfer', 'spectra']),
  points: z.array(z.object({ hz: z.number(), db: z.number().nullable(), trusted: z.boolean() })),
  lowCut: lowCutSchema,
  /** Why the two are no pair, or a doubtful one; empty where they are. */
  remark: z.string(),
  delayMs: z
    .number()
    .nullable()
    .describe('By which it comes later than the zero lane, where both are channels of one recording; null elsewhere'),
});
export type LaneDifference = z.infer<typeof laneDifferenceSchema>;

export const newCompareSetSchema = compareRequestSchema.extend({ name: nameSchema });
export const compareSetSchema = newCompareSetSchema.extend({ id: z.string(), day: daySchema });
export type CompareSet = z.infer<typeof compareSetSchema>;
