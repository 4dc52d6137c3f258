import { z } from 'zod';
import { categorySchema, nameSchema } from './common';

/**
 * What a step is for, which decides what is measured of it. Steps of the first protocol carry these as their names.
 */
export const STEP_ROLES = [
  'speech',
  'silence',
  'rear',
  'sweep',
  'distance',
  'close',
  'plosive',
  'handling',
  'wind',
  'calibration',
  'other',
] as const;
export const stepRoleSchema = z.enum(STEP_ROLES);
export type StepRole = z.infer<typeof stepRoleSchema>;

/** The sweep that is played at every step of the role "sweep". */
export const protocolSweepSchema = z.strictObject({
  lowHz: z.number().positive(),
  highHz: z.number().positive(),
  seconds: z.number().min(0.5).max(120),
  levelDbfs: z.number().max(0).default(-6),
  gateMs: z.number().min(0.5).max(2000).default(500),
});
export type ProtocolSweep = z.infer<typeof protocolSweepSchema>;

export const stepSchema = z.strictObject({
  id: z.string().regex(/^[a-z][a-z0-9-]*$/),
  /** Left out, it is the step's own name, or "other". */
  role: stepRoleSchema.optional(),
  title: nameSchema,
  /** One sentence: what is played or said, and how. */
  instruction: z.string().min(1),
  /** Fragments of file names that point to this step. */
  fileHints: z.array(z.string()).default([]),
  distanceM: z.number().positive().nullable().default(null),
  angleDeg: z.number().nullable().default(null),
  /** Level of the calibrator at a step of the role "calibration"; a take may say otherwise. */
  levelDbSpl: z.number().min(40).max(140).nullable().default(null),
  needsPlacement: z.boolean().default(true),
});

/** A version of a protocol, frozen once a run has used it. */
export const protocolSchema = z.strictObject({
  id: z.string().regex(/^[a-z][a-z0-9-]*$/),
  version: z.int().min(1),
  name: nameSchema,
  category: categorySchema,
  /** The text that is read, where there is one. */
  text: z.string().nullable().default(null),
  sweep: protocolSweepSchema.nullable().default(null),
  cautions: z.array(z.string()).default([]),
  steps: z.array(stepSchema).min(1),
});
export type Protocol = z.infer<typeof protocolSchema>;

/** What a step is for. */
export function roleOf(step: { readonly id: string; readonly role?: StepRole | undefined }): StepRole {
  return step.role ?? STEP_ROLES.find((role) => role === step.id) ?? 'other';
}
