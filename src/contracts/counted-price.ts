import { z } from 'zod';
import { daySchema } from './common';
import { priceSchema } from './run-document';

/** A price with what it came to in other currencies. */
export const countedPriceSchema = priceSchema.extend({
  also: z
    .record(z.string(), z.object({ amount: z.number(), rateOn: daySchema }))
    .optional()
    .describe('What it came to in other currencies on its day, by the nearest earlier rate'),
});
