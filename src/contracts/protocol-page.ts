import { z } from 'zod';
import { daySchema } from './common';
import { protocolSchema } from './protocol';

/** A version of a protocol with what was done by it. */
export const protocolVersionSchema = z.object({
  protocol: protocolSchema,
  runs: z.int(),
  /** Used versions are frozen. */
  isFrozen: z.boolean(),
  firstUsed: daySchema.nullable(),
  lastUsed: daySchema.nullable(),
});
export type ProtocolVersion = z.infer<typeof protocolVersionSchema>;

/** Body of a request that saves a protocol version; a stale one is refused rather than overwritten. */
export const saveProtocolSchema = z.strictObject({ document: z.unknown() });

const bridgeSchema = z.object({
  step: z.string(),
  title: z.string(),
  comparable: z.enum(['yes', 'no', 'open']).nullable(),
  quantity: z.string(),
  offset: z.number(),
  uncertainty: z.number(),
  interval95: z.tuple([z.number(), z.number()]).nullable(),
  units: z.array(z.object({ id: z.string(), name: z.string(), before: z.number(), after: z.number() })),
});
/** Offsets of figures between two versions, from units that were measured under both. */
export const bridgesSchema = z.object({
  from: z.int(),
  to: z.int(),
  /** Units measured under both versions. */
  units: z.int(),
  offsets: z.array(bridgeSchema),
});
export type Bridges = z.infer<typeof bridgesSchema>;

/** Sounds of a text against general English. */
export const phonemeBalanceSchema = z.object({
  words: z.int(),
  unknown: z.array(z.string()),
  phonemes: z.int(),
  shares: z.array(z.object({ phoneme: z.string(), count: z.int(), share: z.number(), expected: z.number() })),
  absent: z.array(z.string()),
  distance: z.number(),
  chance: z.number(),
  verdict: z.enum(['balanced', 'uneven', 'too-short']),
});
export type PhonemeBalanceJson = z.infer<typeof phonemeBalanceSchema>;
export const textBodySchema = z.strictObject({ text: z.string().max(20_000) });
