import { z } from 'zod';
import { sha256Schema } from './common';

export const clipFormatSchema = z.object({
  container: z.enum(['wav', 'rf64', 'bw64', 'flac']),
  encoding: z.string(),
  sampleRateHz: z.number(),
  channels: z.int(),
  durationS: z.number(),
});

/** The compressed file or the film that a clip was decoded from; it is kept beside it. */
export const clipOriginSchema = z.object({
  sha256: sha256Schema,
  bytes: z.number(),
  name: z.string(),
  container: z.string().describe('As it is called: "MP3", "MP4", "QuickTime File Format", "WebM" …'),
  codec: z.string().describe('"mp3", "aac", "opus", "vorbis", "pcm-s24" …'),
  bitRateKbps: z.number().nullable(),
});
export type ClipOrigin = z.infer<typeof clipOriginSchema>;

/** One channel of a recording of several, as a clip of its own. */
export const channelOfSchema = z.object({
  sha256: sha256Schema.describe('Of the recording; it stays in the archive'),
  name: z.string(),
  channel: z.int().min(1),
  channels: z.int().min(2),
});
export type ChannelOf = z.infer<typeof channelOfSchema>;

/** A clip in the archive. */
export const clipSchema = z.object({
  sha256: sha256Schema,
  bytes: z.number(),
  name: z.string(),
  format: clipFormatSchema,
  /** Set where the file was truncated and the part that was there has been kept. */
  salvaged: z.object({ claimedS: z.number().nullable() }).nullable(),
  /** Null for a recording that was never compressed. */
  origin: clipOriginSchema.nullable(),
  /** Null for a clip that is no channel of another one. */
  channelOf: channelOfSchema.nullable(),
});
export type Clip = z.infer<typeof clipSchema>;

/** Columns of a waveform: lowest and highest sample, in turn. */
export const waveformSchema = z.object({ pairs: z.array(z.number()), durationS: z.number() });
export type Waveform = z.infer<typeof waveformSchema>;

/** One clip for each channel of a recording, in order. */
export const channelClipsSchema = z.object({ clips: z.array(clipSchema) });
