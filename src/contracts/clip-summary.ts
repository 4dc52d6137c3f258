import { z } from 'zod';
import { NOISE_FINDING_KINDS } from '#core/measure/noise-finding';
import { clipFormatSchema } from './clip';
import { measurementSchema } from './measurement';
import { segmentSchema } from './segments';

const bandLevelSchema = z.object({ centreHz: z.number(), levelDbfs: z.number().nullable() });
const weightedSchema = z.object({ z: z.number().nullable(), a: z.number().nullable() });

const levelSchema = z.object({
  peakDbfs: z.number().nullable(),
  rmsDbfs: z.number().nullable().describe('AES17: a full-scale sine reads 0'),
  crestDb: z.number().nullable(),
  dcOffset: z.number(),
  clippedRuns: z.int(),
});

const lineSchema = z.object({
  hz: z.number(),
  levelDbfs: z.number().describe('AES17, the floor under the line taken off'),
  aboveFloorDb: z.number(),
});
const familySchema = z
  .object({ spacingHz: z.number(), totalDbfs: z.number(), linesHz: z.array(z.number()) })
  .nullable();

/**
 * What `sediment analyze --json` prints per file (with the file's name added), and what the archive keeps of an
 * analysis. Null means not measured: digital silence, no pause, no speech.
 */
/** A hole of a clip: one value that is held, or the same samples once more. */
export const dropOutSchema = z.object({ kind: z.enum(['gap', 'repeat']), startS: z.number(), lengthS: z.number() });

/** What the pauses of a clip show beside steady noise. */
export const noiseFindingSchema = z.object({
  kind: z.enum(NOISE_FINDING_KINDS),
  text: z.string(),
});

export const clipSummarySchema = z.object({
  format: clipFormatSchema,
  algorithmVersion: z.int().describe('Figures of different versions may differ'),
  level: levelSchema,
  channels: z.array(levelSchema.extend({ truePeakDbtp: z.number().nullable() })).describe('Each channel by itself'),
  loudness: z.object({
    integratedLufs: z.number().nullable(),
    maxMomentaryLufs: z.number().nullable(),
    maxShortTermLufs: z.number().nullable(),
    loudnessRangeLu: z.number().nullable(),
    truePeakDbtp: z.number().nullable(),
    part: z
      .object({
        startS: z.number(),
        endS: z.number(),
        integratedLufs: z.number().nullable(),
        maxMomentaryLufs: z.number().nullable(),
        maxShortTermLufs: z.number().nullable(),
        loudnessRangeLu: z.number().nullable(),
      })
      .optional()
      .describe('Of a part that was asked for, gated by itself'),
  }),
  noise: z.object({
    speech: z.array(segmentSchema),
    silence: z.array(segmentSchema).describe('Pauses of at least 0.5 s; all of them are measured'),
    events: z.array(segmentSchema).describe('Sounds too soft or too short for speech'),
    silenceRmsDbfs: weightedSchema,
    itu468Dbfs: z.number().nullable().describe('ITU-R BS.468-4, quasi-peak; a full-scale sine of 1 kHz reads 0'),
    reSpeechDb: weightedSchema.describe('after the gain that brings the speech to −23 LUFS'),
    thirdOctave: z.array(bandLevelSchema).describe('Spectrum of the pauses that count'),
    findings: z.array(noiseFindingSchema).describe('What the pauses show beside steady noise'),
  }),
  hum: z
    .object({
      mainsHz: z
        .union([z.literal(50), z.literal(60)])
        .nullable()
        .describe('Null: no hum was found'),
      totalDbfs: z.number().nullable(),
      limitDbfs: z.number().nullable().describe('A weaker line would not have been found'),
      lines: z.array(lineSchema),
    })
    .nullable()
    .describe('In the longest undisturbed stretch of a pause; null where there is none'),
  interference: z
    .object({
      totalDbfs: z.number().nullable(),
      limitDbfs: z.number().nullable(),
      busWhine: familySchema.describe('Lines 1 kHz apart'),
      radioBursts: familySchema.describe('Lines 217 Hz apart'),
      lines: z.array(lineSchema).describe('All lines that are not hum'),
    })
    .nullable(),
  plosives: z.array(z.object({ atS: z.number(), peakDbfs: z.number() })).describe('Puffs of air, 20–120 Hz'),
  sibilanceDb: z.number().nullable(),
  dropOuts: z.object({
    count: z.int(),
    listed: z.array(dropOutSchema),
  }),
  thirdOctave: z.array(bandLevelSchema).describe('Spectrum of the whole clip'),
  measurements: z
    .record(z.string(), measurementSchema.omit({ quantity: true }).extend({ unit: z.string() }))
    .describe('Every figure under its registry name, with condition, spread and settings'),
});
export type ClipSummary = z.infer<typeof clipSummarySchema>;
export type BandLevelJson = z.infer<typeof bandLevelSchema>;
