import { z } from 'zod';
import { QUANTITY_IDS } from '#core/measure/registry';

export const spreadSchema = z.object({ sd: z.number(), count: z.number(), of: z.string() });

/** A measured figure as the archive keeps it and the page shows it. */
export const measurementSchema = z.object({
  quantity: z.enum(QUANTITY_IDS as readonly [(typeof QUANTITY_IDS)[number], ...(typeof QUANTITY_IDS)[number][]]),
  value: z.number().nullable(),
  bound: z.enum(['exact', 'at-least', 'at-most']),
  condition: z.string(),
  spread: spreadSchema.nullable(),
  uncertainty: z.number().nullable(),
  notMeasured: z.string().nullable(),
  settings: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
});
export type MeasurementJson = z.infer<typeof measurementSchema>;
