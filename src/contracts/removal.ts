import { z } from 'zod';
import { idSchema } from './common';

/** What can be deleted for good. */
export const REMOVABLE = ['unit', 'run', 'take', 'photograph'] as const;
export const removableSchema = z.enum(REMOVABLE);
export type Removable = z.infer<typeof removableSchema>;

/** What deleting something would take with it, before it is done. */
export const removalPreviewSchema = z.object({
  what: removableSchema,
  /** What it is, in words. */
  title: z.string(),
  /** Name of its unit: it is asked for before anything goes. */
  unit: z.string(),
  specimenId: z.string(),
  /** Everything that goes, a line each. */
  goes: z.array(z.string()),
  /** What is touched and stays, a line each. */
  stays: z.array(z.string()),
  /** Size of the files that go. */
  bytes: z.number(),
  /** Why it cannot be deleted now; null where it can. */
  refusal: z.string().nullable(),
});
export type RemovalPreview = z.infer<typeof removalPreviewSchema>;

/** Body of a request that deletes something for good. */
export const newRemovalSchema = z.strictObject({
  what: removableSchema,
  id: idSchema,
  /** The name of its unit, as typed. */
  name: z.string().max(500),
  reason: z.string().trim().max(500).default(''),
});
export type NewRemoval = z.infer<typeof newRemovalSchema>;

/** The line that something deleted leaves. */
export const removalSchema = z.object({
  id: z.string(),
  what: removableSchema,
  text: z.string(),
  reason: z.string(),
  removedAt: z.string(),
});
export type Removal = z.infer<typeof removalSchema>;
