import { z } from 'zod';
import { responsePointSchema, roomOctaveSchema } from './comparisons';
import { CONDITION_FACTORS } from '#core/rules/take-conditions';
import { boundSchema, measurementSchema, quantitySchema } from './measurement';

/** −∞ travels as null. */
const levelSchema = z.number().nullable();

/** Two takes to be heard against each other. */
export const heardPairSchema = z.object({
  title: z.string().describe('Of the step that is made with the part'),
  fitted: z.string().describe('The take with it'),
  without: z.string().describe('The take without it'),
  match: z
    .enum(['loudness', 'gain'])
    .describe('How they are held against each other: noise from outside at equal gain'),
});
export type HeardPair = z.infer<typeof heardPairSchema>;

/** What a part does at one setting of its switches, from takes with it and without it. */
export const pairGroupSchema = z.object({
  varies: z.string().describe('What is there in the one take and not in the other'),
  setting: z.string().nullable().describe('How its switches stood; null where nothing was noted'),
  figures: z.array(measurementSchema),
  tonal: z
    .object({ bands: z.array(z.object({ hz: z.number(), db: z.number(), u: z.number() })), from: z.string() })
    .nullable()
    .describe('Change by third octaves, the mean of 500 Hz–2 kHz at zero'),
  outside: z
    .array(z.object({ centreHz: z.number(), removedDb: z.number().nullable() }))
    .nullable()
    .describe('Taken away of a noise from outside by third octaves, at equal gain'),
  takes: z.array(heardPairSchema),
});
export type PairGroupJson = z.infer<typeof pairGroupSchema>;

/** Figures of one unit over the conditions that its takes were made in. */
export const conditionGridSchema = z.object({
  conditions: z
    .array(z.object({ voice: z.string().nullable(), place: z.string().nullable(), mount: z.string().nullable() }))
    .describe('The first one is what counts for the unit'),
  rows: z.array(
    z.object({
      quantity: quantitySchema,
      cells: z.array(z.object({ value: z.number(), uncertainty: z.number().nullable(), repeats: z.int() }).nullable()),
      best: z
        .int()
        .nullable()
        .describe('Number of the best condition, from 0; null where the best two are not told apart'),
      effects: z.array(
        z.object({
          factor: z.enum(CONDITION_FACTORS),
          lowest: z.object({ of: z.string(), value: z.number() }),
          highest: z.object({ of: z.string(), value: z.number() }),
          p: z.number().nullable().describe('One-way analysis of variance against repeats; null where there are none'),
        }),
      ),
    }),
  ),
});
export type ConditionGridJson = z.infer<typeof conditionGridSchema>;

/** Curves of a run, as they are kept and drawn. */
export const curvesSchema = z.object({
  pairs: z.array(pairGroupSchema).default([]),
  conditions: conditionGridSchema.nullable().default(null),
  noiseByGain: z
    .array(z.object({ gainDb: z.number(), einADbu: z.number(), u: z.number().nullable() }))
    .nullable()
    .default(null)
    .describe('Input noise of an interface over its gain, dBu(A)'),
  distortionByLevel: z
    .array(
      z.object({
        levelDbfs: z.number(),
        thdPlusNoiseDb: z.number(),
        thdPlusNoiseU: z.number().nullable(),
        thdDb: z.number(),
        thdU: z.number().nullable(),
        thdBound: boundSchema.describe('At most where the noise hides the harmonics'),
      }),
    )
    .nullable()
    .default(null)
    .describe('Distortion of a tone of 1 kHz over its level, re the tone, dB'),
  channelsByFrequency: z
    .array(
      z.object({
        hz: z.number(),
        crosstalkDb: levelSchema.describe('Of the channel that is not fed, re the one that is'),
        crosstalkBound: boundSchema.describe('At most where the noise hides the tone'),
        balanceDb: levelSchema.describe('Second channel re the first, both fed alike'),
      }),
    )
    .nullable()
    .default(null)
    .describe('Crosstalk and balance of two channels over frequency, dB'),
  holesByDistance: z
    .array(z.object({ fromM: z.number(), toM: z.number(), count: z.int(), lostMs: z.number() }))
    .nullable()
    .default(null)
    .describe('Holes of a radio link from one distance of a walk to the next'),
  windBySpeed: z
    .array(
      z.object({
        speedMs: z.number(),
        lowDb: z.number().nullable(),
        aDb: z.number().nullable(),
        bound: boundSchema.default('exact').describe('Limits where words may be drowned in the wind'),
      }),
    )
    .nullable()
    .default(null)
    .describe('Wind noise re speech over the speed of the wind, dB'),
  response: z
    .object({ points: z.array(responsePointSchema), lowestValidHz: z.number(), gateMs: z.number() })
    .nullable()
    .default(null),
  sides: z
    .object({ left: z.array(responsePointSchema), right: z.array(responsePointSchema), lowestValidHz: z.number() })
    .nullable()
    .default(null)
    .describe('Both sides of headphones on an artificial ear, each the mean of its seatings'),
  polar: z
    .object({
      levels: z.array(
        z.object({
          angleDeg: z.number(),
          broadbandDb: z.number(),
          u: z.number().default(0),
          octavesDb: z.array(z.number().nullable()),
        }),
      ),
      pattern: z
        .object({
          alpha: z.number(),
          alphaU: z.number().default(0),
          randomEnergyEfficiency: z.number(),
          directivityIndexDb: z.number(),
          residual: z.number(),
        })
        .nullable(),
    })
    .nullable()
    .default(null),
  room: z
    .object({ octaves: z.array(roomOctaveSchema) })
    .nullable()
    .default(null),
  distance: z
    .object({
      rungs: z.array(z.object({ distanceM: z.number(), db: z.number() })),
      fit: z.object({
        directDb: z.number(),
        reverberantDb: levelSchema,
        criticalM: z.number().nullable(),
        critical95: z.tuple([z.number(), z.number().nullable()]).nullable().default(null),
        residualDb: z.number(),
      }),
    })
    .nullable()
    .default(null),
});
export type Curves = z.infer<typeof curvesSchema>;
