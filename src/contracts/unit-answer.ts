import { z } from 'zod';
import { daySchema } from './common';

/** An answer of a listener that names a unit. Of tests that are still blind there is none. */
export const unitAnswerSchema = z.object({
  id: z.string(),
  day: daySchema,
  source: z.enum(['test', 'placing', 'import']),
  /** Name of the test that it was given in. */
  test: z.string().nullable(),
  attribute: z.string(),
  listener: z.string().nullable(),
  /** Units that it is about, best first; of a pair as it was offered. */
  names: z.array(z.string()),
  /** Of a pair 1, 0.5 or 0 for the first; null for an order. */
  outcome: z.number().nullable(),
  /** Given with the names in sight. */
  sighted: z.boolean(),
  isLeftOut: z.boolean(),
});
export type UnitAnswer = z.infer<typeof unitAnswerSchema>;
