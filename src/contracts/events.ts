import { z } from 'zod';

/** Something that runs in the background. */
export const jobSchema = z.object({
  id: z.string(),
  label: z.string(),
  done: z.number(),
  total: z.number(),
  state: z.enum(['waiting', 'running', 'done', 'failed']),
  reason: z.string().nullable(),
  startedAt: z.string(),
  /** The unit it is about. */
  specimenId: z.string().nullable(),
});
export type Job = z.infer<typeof jobSchema>;

/** Facts of a unit that are noted by themselves, so that nothing else about it need be read anew. */
export const separateFactsSchema = z.enum(['prices', 'points', 'sheet']);
export type SeparateFacts = z.infer<typeof separateFactsSchema>;

/** What the server tells every open page. */
export const serverEventSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('jobs'), jobs: z.array(jobSchema) }),
  /** Facts of a unit changed: take, analysis, points, price. Without a word which, any may have. */
  z.object({ type: z.literal('specimen'), specimenId: z.string(), only: separateFactsSchema.optional() }),
  /** A session changed: its plan, a take, a decision. */
  z.object({ type: z.literal('plan'), planId: z.string() }),
  /** A listening test changed: prepared, answered, revealed. */
  z.object({ type: z.literal('listening'), testId: z.string() }),
  /** A protocol, a rig or a rubric changed: figures stay, what they come to may not. */
  z.object({ type: z.literal('rules') }),
  /** Something was set aside, or mended. */
  z.object({ type: z.literal('archive') }),
]);
export type ServerEvent = z.infer<typeof serverEventSchema>;
