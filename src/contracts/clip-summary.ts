import { z } from 'zod';
import { clipFormatSchema } from './clip';

const segmentSchema = z.object({ startS: z.number(), endS: z.number() });
const bandLevelSchema = z.object({ centreHz: z.number(), levelDbfs: z.number().nullable() });
const weightedSchema = z.object({ z: z.number().nullable(), a: z.number().nullable() });

/**
 * What `sediment analyze --json` prints per file (with the file's name added), and what the archive keeps of an
 * analysis. Null means not measured: digital silence, no pause, no speech.
 */
export const clipSummarySchema = z.object({
  format: clipFormatSchema,
  level: z.object({
    peakDbfs: z.number().nullable(),
    rmsDbfs: z.number().nullable().describe('AES17: a full-scale sine reads 0'),
    crestDb: z.number().nullable(),
    dcOffset: z.number(),
    clippedRuns: z.int(),
  }),
  loudness: z.object({ integratedLufs: z.number().nullable(), truePeakDbtp: z.number().nullable() }),
  noise: z.object({
    speech: z.array(segmentSchema),
    silence: z.array(segmentSchema).describe('Pauses of at least 0.5 s; the longest one is measured'),
    silenceRmsDbfs: weightedSchema,
    reSpeechDb: weightedSchema.describe('after the gain that brings the speech to −23 LUFS'),
    thirdOctave: z.array(bandLevelSchema).describe('Spectrum of the longest pause'),
  }),
  thirdOctave: z.array(bandLevelSchema).describe('Spectrum of the whole clip'),
});
export type ClipSummary = z.infer<typeof clipSummarySchema>;
export type BandLevelJson = z.infer<typeof bandLevelSchema>;
