import { z } from 'zod';

/** A stretch of a clip, in seconds from its start. */
export const segmentSchema = z
  .object({ startS: z.number().min(0), endS: z.number() })
  .refine((s) => s.endS > s.startS, { message: 'must end after it begins' });

export type Segment = z.infer<typeof segmentSchema>;

const listSchema = z.array(segmentSchema).max(2000);

/** Where somebody speaks, where nobody does, and what else is heard. */
export const segmentsSchema = z.object({ speech: listSchema, silence: listSchema, events: listSchema });
export type Segments = z.infer<typeof segmentsSchema>;
