import { z } from 'zod';
import { sha256Schema } from './common';

/** Longest file that is taken in: a WAV of 64-bit sizes has no limit of its own. */
const MOST_BYTES = 200 * 2 ** 30;

export const uploadNameSchema = z.string().min(1).max(200);
export const uploadIdSchema = z.uuid();

/** Body of a request that begins an upload in parts. */
export const newUploadSchema = z.strictObject({
  name: uploadNameSchema,
  bytes: z.int().min(0).max(MOST_BYTES),
});
export type NewUpload = z.infer<typeof newUploadSchema>;

/** How far an upload is: the next part begins here. */
export const uploadSchema = z.object({ id: uploadIdSchema, offset: z.number(), bytes: z.number() });
export type Upload = z.infer<typeof uploadSchema>;

export const finishUploadSchema = z.strictObject({
  keepPart: z.boolean().default(false),
  decoded: sha256Schema
    .nullable()
    .default(null)
    .describe('Of a compressed file: the clip that the page has decoded it to.'),
});
