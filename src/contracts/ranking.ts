import { z } from 'zod';
import type { UnitFacts } from '#core/rules/criterion-points';
import { daySchema } from './common';
import { countedPriceSchema } from './counted-price';
import { rubricSchema } from './rubric';

const measuredFactSchema = z.object({
  value: z.number().nullable(),
  uncertainty: z.number().nullable(),
  bound: z.enum(['exact', 'at-least', 'at-most']),
  notMeasured: z.string().nullable(),
  between: z.number().nullable().optional().describe('What another reading differs by, one deviation'),
  remark: z.string().nullable().optional().describe('Another protocol version, and what was done about it'),
});

/** Facts of one unit, as ranking needs them. */
export const unitFactsSchema: z.ZodType<UnitFacts> = z.object({
  id: z.string(),
  figures: z.record(z.string(), measuredFactSchema),
  byHand: z.record(z.string(), z.object({ value: z.number(), reason: z.string().nullable() })),
  prices: z.array(countedPriceSchema),
  needs: z
    .array(
      z.object({
        name: z.string(),
        uses: z.array(z.string()),
        prices: z.array(countedPriceSchema),
        isTyped: z.boolean(),
      }),
    )
    .optional()
    .describe('Parts without which it cannot be used; no uses: needed for every use'),
  reviewedOn: daySchema.nullable().optional().describe('Day of its first test'),
  heard: z
    .object({ logWorth: z.number(), se: z.number(), answers: z.int() })
    .nullable()
    .optional()
    .describe('What blind answers say'),
  sheet: z
    .record(z.string(), z.union([z.number(), z.boolean(), z.array(z.string())]))
    .optional()
    .describe('What the data sheet says, numbers in the unit of the field'),
  cells: z.record(z.string(), z.number()).optional().describe('Cells of tables, by protocol, step, row and column'),
});

/** All that the page needs to rank by itself, with any weights. */
export const rankingInputsSchema = z.object({
  rubric: rubricSchema,
  units: z.array(unitFactsSchema),
  names: z.record(
    z.string(),
    z.object({
      maker: z.string(),
      model: z.string(),
      label: z.string(),
      onDesk: z.boolean(),
      /** The reference of a rig: it comes back in every session, and is not what a session is about. */
      isControl: z.boolean(),
      lastTested: z.string().nullable(),
    }),
  ),
});
export type RankingInputs = z.infer<typeof rankingInputsSchema>;

/** A ranking as it stood on a day. */
export const rankingOnDaySchema = z.object({
  inputs: rankingInputsSchema,
  rulesSavedOn: daySchema.nullable().describe('When its rules were saved; null: none had been, today’s are used'),
  lateFacts: z.int().describe('Facts of that day or earlier that were noted after it'),
});
export type RankingOnDay = z.infer<typeof rankingOnDaySchema>;

/** A row of `sediment rank --json`. */
export const rankRowSchema = z.object({
  place: z.int(),
  stratum: z.int(),
  specimen: z.string(),
  id: z.string(),
  composite: z.number(),
  sd: z.number(),
  rank90: z.tuple([z.number(), z.number()]),
  beatsNext: z.number().nullable(),
  points: z.record(z.string(), z.number().nullable()),
  missing: z.array(z.string()),
});
export type RankRow = z.infer<typeof rankRowSchema>;
