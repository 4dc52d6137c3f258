import { z } from 'zod';

/** Words for a unit by where they come from, which are kept apart, and what it is for. */
export const characterSchema = z.object({
  /** Of listeners, most frequent first. */
  heard: z.array(z.object({ word: z.string(), count: z.int(), isFree: z.boolean() })),
  /** By rule, from figures that stand out among the kind. */
  measured: z.array(z.object({ word: z.string(), why: z.string() })),
  /** As the maker says, from the sheet. */
  maker: z.array(z.string()),
  /** Where two of them say opposite things. */
  contradictions: z.array(z.string()),
  /** Uses of this desk that ask something of the kind. */
  uses: z.array(
    z.object({
      use: z.string(),
      how: z.enum(['met', 'missed', 'open']),
      /** What it asks for, and how the unit stands to it. */
      asked: z.array(z.string()),
      tested: z.int().describe('Other tested units of the kind'),
      meeting: z.int().describe('Of them, those that meet all that is asked'),
      unknown: z.int().describe('Of them, those of which not all is known'),
      better: z.int().nullable().describe('Of them, those that are better for it; null where the unit itself is open'),
      bestNames: z.array(z.object({ id: z.string(), name: z.string() })).describe('Some of the better ones'),
    }),
  ),
});
export type Character = z.infer<typeof characterSchema>;
