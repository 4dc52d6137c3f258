import { z } from 'zod';
import { clipSchema } from './clip';
import { idSchema } from './common';

/** What is about to be recorded. */
export const newRecordingSchema = z.strictObject({
  /** Where it belongs; null for a recording that is sorted later. */
  slot: idSchema.nullable(),
  step: z.string().nullable(),
  sampleRateHz: z.int().min(8000).max(192_000),
  channels: z.int().min(1).max(2),
  /** What recorded it, in words: device and its settings as the browser reports them. */
  device: z.string().max(400),
  settings: z.record(z.string(), z.union([z.string(), z.number(), z.boolean()])).default({}),
});
export type NewRecording = z.infer<typeof newRecordingSchema>;

export const recordingIdSchema = z.uuid();
/** A recording that has not become a clip yet. */
export const recordingSchema = newRecordingSchema.extend({
  id: recordingIdSchema,
  startedAt: z.string(),
  /** Frames from the start without a gap. */
  frames: z.int(),
  durationS: z.number(),
  /** Stretches that came in out of order, after a gap. */
  gaps: z.int(),
  isActive: z.boolean().describe('Something arrived in the last seconds'),
});
export type Recording = z.infer<typeof recordingSchema>;

/** Bytes of a frame: 24 bit, little-endian, channels interleaved. */
export const BYTES_PER_CHANNEL = 3;

/** Body of a request that ends a recording: how long it is. */
export const finishRecordingSchema = z.strictObject({
  frames: z.int().min(1).nullable().describe('Null: whatever has arrived'),
});
export const finishedRecordingSchema = z.object({
  clip: clipSchema,
  slot: idSchema.nullable(),
  step: z.string().nullable(),
});
