import { z } from 'zod';
import { categorySchema, daySchema } from './common';

/** A layer of the core log. */
export const sessionSchema = z.object({
  id: z.string(),
  date: daySchema,
  takes: z.int(),
  category: categorySchema,
  units: z.array(z.object({ id: z.string(), name: z.string() })),
});
export type Session = z.infer<typeof sessionSchema>;
