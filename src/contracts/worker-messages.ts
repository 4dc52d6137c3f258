import { z } from 'zod';
import type { SoundCodec } from '#core/audio/codec';
import { clipFormatSchema, type Clip, type ClipOrigin } from './clip';
import { noiseFindingSchema, type ClipSummary } from './clip-summary';
import { segmentSchema, type Segment, type Segments } from './segments';
import { boundSchema, spreadSchema, type MeasurementJson } from './measurement';

/** −∞ has no place in JSON: it travels as null. */
const levelSchema = z
  .number()
  .nullable()
  .transform((value) => value ?? -Infinity);

const noiseLevelSchema = z.object({
  levelDbfs: levelSchema,
  spread: spreadSchema.nullable(),
  uncertaintyDb: z.number().nullable(),
});

const bandsSchema = z.array(z.object({ centreHz: z.number(), levelDbfs: z.number().nullable() }));

/** What measurements over several takes need of one clip, beside its step powers. */
export const analysisDetailSchema = z.object({
  /** Seconds of speech that were found. */
  speechS: z.number(),
  loudness: z.object({ integratedLufs: levelSchema, uncertaintyLu: z.number().nullable() }),
  noise: z
    .object({
      segment: segmentSchema,
      pauses: z.int(),
      seconds: z.number(),
      highHz: z.number(),
      bound: boundSchema,
      refused: z.string().nullable(),
      z: noiseLevelSchema,
      a: noiseLevelSchema,
      thirdOctave: bandsSchema,
      kMeanSquare: z.number(),
      findings: z.array(noiseFindingSchema),
    })
    .nullable(),
  /** Of the whole clip. */
  thirdOctave: bandsSchema,
  loudest: z.object({ zDbfs: levelSchema, aDbfs: levelSchema, oneKilohertzDbfs: levelSchema }),
  aDbfs: levelSchema,
});
export type AnalysisDetail = z.infer<typeof analysisDetailSchema>;

/** Order to a worker: measure a clip. Progress goes to the port. */
export interface AnalyseClipTask {
  readonly path: string;
  readonly progress: MessagePortLike | null;
  /** As set by a person; null for the automatic ones. */
  readonly segments?: Segments | null;
  readonly dualMono?: boolean;
  /** A part whose loudness is wanted beside that of the whole. */
  readonly part?: Segment | null;
  /** Of a compressed file: how its sound was packed. */
  readonly sound?: SoundCodec | null;
}

/** The part of a MessagePort that tasks use (its type differs between node and the browser). */
export interface MessagePortLike {
  postMessage(message: unknown): void;
}

export const progressMessageSchema = z.object({ kind: z.literal('progress'), share: z.number().min(0).max(1) });
export type ProgressMessage = z.infer<typeof progressMessageSchema>;

/** What a worker found in a clip. */
export interface AnalyseClipResult {
  readonly summary: ClipSummary;
  readonly measurements: readonly MeasurementJson[];
  readonly detail: AnalysisDetail;
  /** K-weighted power in steps of 100 ms. */
  readonly stepPowers: Float64Array;
  /** Lowest and highest sample per column, in turn. */
  readonly waveform: Float32Array;
}

/** Order to a worker: read a file's header, and its samples where only they tell whether it is sound. */
export interface InspectClipTask {
  readonly path: string;
  readonly keepPart: boolean;
}

/** A refusal travels as data, since errors lose their class between threads. */
export const inspectClipResultSchema = z.discriminatedUnion('ok', [
  z.object({
    ok: z.literal(true),
    format: clipFormatSchema,
    truncatedFrom: z.object({ claimedS: z.number().nullable() }).nullable(),
  }),
  z.object({
    ok: z.literal(false),
    code: z.string(),
    message: z.string(),
    truncation: z.object({ claimedS: z.number().nullable(), presentS: z.number() }).nullable(),
  }),
]);
export type InspectClipResult = z.infer<typeof inspectClipResultSchema>;

/** Order to a worker: write the sound part of a truncated WAV as a file of its own. */
export interface SalvageClipTask {
  readonly path: string;
  readonly into: string;
}

/** Order to a worker: decode a compressed file, or the sound of a film. */
export interface DecodeClipTask {
  readonly path: string;
  /** Where the samples go, as a WAV; null where only what the file is is asked. */
  readonly into: string | null;
}

/** How the sound was packed. */
type PackedSound = Pick<ClipOrigin, 'container' | 'codec' | 'bitRateKbps'>;

/** "page": no decoder stands here for it, the browser has one. */
export type DecodeClipResult =
  | { readonly kind: 'decoded'; readonly packed: PackedSound; readonly format: Clip['format'] }
  | { readonly kind: 'known'; readonly packed: PackedSound; readonly durationS: number; readonly channels: number }
  | { readonly kind: 'page'; readonly packed: PackedSound; readonly message: string }
  | { readonly kind: 'refused'; readonly code: string; readonly message: string };
