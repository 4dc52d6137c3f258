import { z } from 'zod';
import { categorySchema, nameSchema } from './common';

export const stepSchema = z.strictObject({
  id: z.string().regex(/^[a-z][a-z0-9-]*$/),
  title: nameSchema,
  /** One sentence: what is played or said, and how. */
  instruction: z.string().min(1),
  /** Fragments of file names that point to this step. */
  fileHints: z.array(z.string()).default([]),
  distanceM: z.number().positive().nullable().default(null),
  angleDeg: z.number().nullable().default(null),
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
  cautions: z.array(z.string()).default([]),
  steps: z.array(stepSchema).min(1),
});
export type Protocol = z.infer<typeof protocolSchema>;
