import { z } from 'zod';
import { daySchema, idSchema, nameSchema, sha256Schema } from './common';

const part = z.string().trim().max(300).default('');

/** The chain that a session runs on. Any change is a new rig with a date of its own. */
export const rigDocumentSchema = z.strictObject({
  name: nameSchema.describe('Of the chain as a whole, the same over all its changes, e.g. "Desk"'),
  since: daySchema,
  room: part,
  interface: part,
  preamp: part,
  cables: part,
  stand: part,
  software: part.describe('Recorder, its settings, processing switched off'),
  controlUnit: idSchema.nullable().default(null).describe('The reference that opens and closes every session'),
  inputFullScaleDbu: z.number().min(-60).max(40).nullable().default(null),
  sampleRateHz: z.number().min(8000).max(192_000).nullable().default(null),
  whenOff: z
    .enum(['as-measured', 'correct'])
    .default('as-measured')
    .describe('What is done when the control unit says that the rig is off'),
  why: z.string().trim().max(500).default('').describe('What changed, and why'),
});
export type RigDocument = z.infer<typeof rigDocumentSchema>;

export const CALIBRATION_KINDS = ['sound-level', 'electrical', 'loopback'] as const;
export const calibrationSchema = z.object({
  id: z.string(),
  kind: z.enum(CALIBRATION_KINDS),
  day: daySchema,
  /** Tone that was fed in: dB SPL or dBu; of a loopback nothing. */
  fedIn: z.number().nullable(),
  gainDb: z.number().nullable(),
  /** dBFS of the tone, or milliseconds. */
  read: z.number(),
  /** dBFS at 94 dB SPL and 0 dB of gain; dBu at full scale and 0 dB of gain; milliseconds. */
  result: z.number(),
  uncertainty: z.number().nullable(),
  clip: sha256Schema.nullable(),
  note: z.string(),
});
export type Calibration = z.infer<typeof calibrationSchema>;

/** Body of a request that notes a calibration; with a clip, its tone or its delay is measured. */
export const newCalibrationSchema = z.strictObject({
  kind: z.enum(CALIBRATION_KINDS),
  day: daySchema,
  fedIn: z.number().min(-120).max(160).nullable().default(null),
  gainDb: z.number().min(-40).max(120).nullable().default(null),
  read: z.number().nullable().default(null).describe('Typed in, where there is no clip'),
  clip: sha256Schema.nullable().default(null),
  note: z.string().trim().max(300).default(''),
});
export type NewCalibration = z.infer<typeof newCalibrationSchema>;

export const rigSchema = z.object({
  id: z.string(),
  document: rigDocumentSchema,
  runs: z.int(),
  calibrations: z.array(calibrationSchema),
});
export type Rig = z.infer<typeof rigSchema>;

/** One figure of the control unit, today against its history. */
export const agreementSchema = z.object({
  quantity: z.string(),
  verdict: z.enum(['agrees', 'off', 'no-history']),
  today: z.number(),
  usual: z.number().nullable(),
  offset: z.number().nullable(),
  offsetUncertainty: z.number().nullable(),
  spread: z.number().nullable(),
  limit: z.number().nullable().describe('For all figures of the day together'),
  found80: z.number().nullable().describe('A shift of this size would be found with a probability of 80 %'),
  count: z.int(),
  /** Earlier figures, oldest first, for a small chart. */
  history: z.array(z.object({ day: daySchema, rig: z.string().nullable(), value: z.number() })),
});
/** What the control unit says of a day's rig. */
export const rigHealthSchema = z.object({
  controlUnit: z.object({ id: z.string(), name: z.string() }).nullable(),
  verdict: z.enum(['agrees', 'off', 'no-history', 'no-control']),
  /** Where the rig changed, what the comparison is with, in words. */
  note: z.string(),
  whenOff: z.enum(['as-measured', 'correct']),
  figures: z.array(agreementSchema),
  /** Closing against opening takes of the day. */
  drift: z.array(z.object({ quantity: z.string(), opening: z.number(), closing: z.number(), limit: z.number() })),
});
export type RigHealth = z.infer<typeof rigHealthSchema>;
