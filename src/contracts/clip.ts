import { z } from 'zod';
import { sha256Schema } from './common';

export const clipFormatSchema = z.object({
  container: z.enum(['wav', 'rf64', 'bw64', 'flac']),
  encoding: z.string(),
  sampleRateHz: z.number(),
  channels: z.int(),
  durationS: z.number(),
});

/** A clip in the archive. */
export const clipSchema = z.object({
  sha256: sha256Schema,
  bytes: z.number(),
  name: z.string(),
  format: clipFormatSchema,
  /** Set where the file was truncated and the part that was there has been kept. */
  salvaged: z.object({ claimedS: z.number().nullable() }).nullable(),
});
export type Clip = z.infer<typeof clipSchema>;

/** Columns of a waveform: lowest and highest sample, in turn. */
export const waveformSchema = z.object({ pairs: z.array(z.number()), durationS: z.number() });
export type Waveform = z.infer<typeof waveformSchema>;
