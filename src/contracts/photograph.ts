import { z } from 'zod';
import { daySchema, sha256Schema } from './common';

/** What a photograph shows. */
export const PHOTO_SUBJECTS = ['unit', 'box', 'set-up'] as const;
export type PhotoSubject = (typeof PHOTO_SUBJECTS)[number];

/** Largest file that is taken. */
export const LARGEST_PHOTO_BYTES = 30_000_000;

/** What is said of a photograph that is brought in; its bytes are the body. */
export const newPhotographSchema = z.strictObject({
  subject: z.enum(PHOTO_SUBJECTS).default('unit'),
  caption: z.string().trim().max(300).default(''),
  date: daySchema,
});
export type NewPhotograph = z.infer<typeof newPhotographSchema>;

/** A photograph as it is kept. */
export const photographSchema = z.object({
  id: z.string(),
  sha256: sha256Schema,
  format: z.enum(['jpeg', 'png', 'webp']),
  bytes: z.number(),
  widthPx: z.int(),
  heightPx: z.int(),
  subject: z.enum(PHOTO_SUBJECTS),
  caption: z.string(),
  date: daySchema,
});
export type Photograph = z.infer<typeof photographSchema>;
