import { z } from 'zod';
import { QUANTITY_IDS } from '#core/measure/registry';

export const spreadSchema = z.object({ sd: z.number(), count: z.number(), of: z.string() });

/** Whether a figure is the value itself or only a limit to it. */
export const boundSchema = z.enum(['exact', 'at-least', 'at-most']);

/** Name of a figure of the registry. */
export const quantitySchema = z.enum(
  QUANTITY_IDS as readonly [(typeof QUANTITY_IDS)[number], ...(typeof QUANTITY_IDS)[number][]],
);

/** A measured figure as the archive keeps it and the page shows it. */
export const measurementSchema = z.object({
  quantity: quantitySchema,
  value: z.number().nullable(),
  bound: boundSchema,
  condition: z.string(),
  spread: spreadSchema.nullable(),
  uncertainty: z.number().nullable().describe('Standard uncertainty of this reading, one deviation'),
  notMeasured: z.string().nullable(),
  settings: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
});
export type MeasurementJson = z.infer<typeof measurementSchema>;

/** A figure of a run among those of the archive. */
export const unitMeasurementSchema = measurementSchema.extend({
  anotherReading: z
    .number()
    .nullable()
    .describe(
      'Standard uncertainty for another reading, same voice, unit and place on another day; by repeats in the archive',
    ),
});
export type UnitMeasurement = z.infer<typeof unitMeasurementSchema>;
