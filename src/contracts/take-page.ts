import { z } from 'zod';
import { heardPairSchema } from './curves';
import { stepRoleSchema } from './protocol';
import { segmentsSchema } from './segments';
import { takeSchema } from './specimen';
import { daySchema } from './common';

const bandsSchema = z.array(z.object({ centreHz: z.number(), db: z.number().nullable() }));

/** Everything on the page of a take. */
export const takePageSchema = z.object({
  take: takeSchema,
  role: stepRoleSchema,
  pairs: z.array(heardPairSchema).describe('Takes with and without something, of which it is one'),
  siblings: z
    .array(z.object({ takeId: z.string(), unit: z.string(), title: z.string(), channel: z.int() }))
    .describe('Takes of the same moment: other channels of one recording'),
  unit: z.object({ id: z.string(), name: z.string() }),
  date: daySchema,
  protocol: z.string(),
  protocolVersion: z.int(),
  segments: z.object({ automatic: segmentsSchema, chosen: segmentsSchema.nullable() }).nullable(),
  spectrum: z
    .object({
      /** What all spectra here are brought to, in words. */
      condition: z.string(),
      take: bandsSchema,
      /** Takes of this step under other versions that it cannot be held against. */
      leftOut: z.object({ takes: z.int(), reason: z.string() }).nullable(),
      /** The nearest take of the control unit on this step. */
      control: z.object({ unit: z.string(), date: daySchema, bands: bandsSchema }).nullable(),
      /** 10th, 50th and 90th percentile of this step over the catalogue, newest take of each unit. */
      catalogue: z
        .object({
          units: z.int(),
          bands: z.array(z.object({ centreHz: z.number(), p10: z.number(), p50: z.number(), p90: z.number() })),
        })
        .nullable(),
    })
    .nullable(),
});
export type TakePage = z.infer<typeof takePageSchema>;

/** Body of a request that sets segments; null goes back to the automatic ones. */
export const segmentChoiceSchema = z.strictObject({ segments: segmentsSchema.nullable() });

/** A spectrogram for eyes: bytes column after column, row 0 the lowest; value v stands for −127.5 + v/2 dBFS. */
export const spectrogramSchema = z.object({
  columns: z.int(),
  rows: z.int(),
  lowHz: z.number(),
  highHz: z.number(),
  levels: z.base64(),
});
export type SpectrogramJson = z.infer<typeof spectrogramSchema>;
