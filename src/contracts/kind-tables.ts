import { z } from 'zod';
import { categorySchema, daySchema } from './common';

/** The ranking of a kind in an open form: by the saved rules, on a day. */
export const rankingExportSchema = z.object({
  format: z.literal('sediment-ranking/1'),
  category: categorySchema,
  day: daySchema,
  rulesVersion: z.int(),
  criteria: z.array(z.object({ id: z.string(), name: z.string() })),
  units: z.array(
    z.object({
      unit: z.string(),
      place: z.int(),
      place90: z.tuple([z.number(), z.number()]).describe('5 % and 95 % quantile'),
      stratum: z.int(),
      points: z.number().describe('0 to 5'),
      points90: z.tuple([z.number(), z.number()]).describe('5 % and 95 % quantile'),
      criteria: z.record(
        z.string(),
        z.object({ points: z.number().nullable().describe('Null: not known'), why: z.string() }),
      ),
    }),
  ),
});
export type RankingExport = z.infer<typeof rankingExportSchema>;

/** Every figure of every unit of a kind in an open form. */
export const boardExportSchema = z.object({
  format: z.literal('sediment-board/1'),
  category: categorySchema,
  day: daySchema,
  figures: z.array(z.object({ id: z.string(), name: z.string(), unit: z.string() })),
  units: z.array(
    z.object({
      unit: z.string(),
      figures: z.record(
        z.string(),
        z.object({
          value: z.number().nullable(),
          uncertainty: z.number().nullable().describe('Standard uncertainty; null: not known'),
          bound: z.string().nullable().describe('Where the value is a limit: on which side'),
          notMeasured: z.string().nullable().describe('Why there is no value'),
        }),
      ),
    }),
  ),
});
export type BoardExport = z.infer<typeof boardExportSchema>;
