import { z } from 'zod';
import { sha256Schema } from './common';

/** A cell of a table, with where its number comes from. */
export const tableCellSchema = z.strictObject({
  row: z.string(),
  column: z.string(),
  value: z.number(),
  source: z.enum(['typed', 'measured']),
  clip: sha256Schema.nullable().default(null),
});
export type TableCell = z.infer<typeof tableCellSchema>;

/** A table that was filled in at a step: latency by rate and buffer, gain by dial position. */
export const tableReadingSchema = z.strictObject({ step: z.string(), cells: z.array(tableCellSchema).max(800) });
export type TableReading = z.infer<typeof tableReadingSchema>;
