import { z } from 'zod';
import { PRICE_KINDS, type Rubric } from '#core/rules/rubric';
import { QUANTITY_IDS } from '#core/measure/registry';
import { categorySchema, currencySchema, nameSchema, slugSchema } from './common';
import { sheetFieldIdSchema } from './sheet';

const pointsSchema = z.number().min(0).max(5);
const curveSchema = z
  .array(z.tuple([z.number(), pointsSchema]))
  .min(1)
  .refine((knots) => knots.every(([x], i) => i === 0 || x > knots[i - 1][0]), {
    message: 'knots must stand in ascending order',
  });
const criterionBase = { id: slugSchema, name: nameSchema, meaning: z.string().min(1) };

export const criterionSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...criterionBase,
    kind: z.literal('measured'),
    quantity: z.enum(QUANTITY_IDS as readonly [(typeof QUANTITY_IDS)[number], ...(typeof QUANTITY_IDS)[number][]]),
    curve: curveSchema,
    repeatability: z.number().min(0),
  }),
  z.strictObject({ ...criterionBase, kind: z.literal('by-hand'), repeatability: z.number().min(0) }),
  z.strictObject({
    ...criterionBase,
    kind: z.literal('heard'),
    curve: curveSchema,
    leastAnswers: z.int().min(1),
    repeatability: z.number().min(0),
  }),
  z.strictObject({
    ...criterionBase,
    kind: z.literal('sheet-number'),
    field: sheetFieldIdSchema,
    curve: curveSchema,
  }),
  z.strictObject({
    ...criterionBase,
    kind: z.literal('sheet-word'),
    field: sheetFieldIdSchema,
    points: z.record(z.string().min(1), pointsSchema),
    otherwise: pointsSchema,
  }),
  z.strictObject({
    ...criterionBase,
    kind: z.literal('features'),
    features: z.array(z.strictObject({ field: sheetFieldIdSchema, is: z.string().min(1).nullable() })).min(1).max(40),
    curve: curveSchema,
  }),
  z.strictObject({
    ...criterionBase,
    kind: z.literal('table'),
    protocol: slugSchema,
    step: slugSchema,
    row: nameSchema,
    column: nameSchema,
    curve: curveSchema,
    repeatability: z.number().min(0),
  }),
  z.strictObject({
    ...criterionBase,
    kind: z.literal('price'),
    currency: currencySchema,
    basis: z.array(z.enum(PRICE_KINDS)).min(1),
    curve: curveSchema,
    limit: z.strictObject({ amount: z.number().positive(), penalty: pointsSchema }).nullable(),
  }),
]);

/** The rules of scoring as a document; frozen once used. */
export const rubricSchema: z.ZodType<Rubric> = z
  .strictObject({
    id: slugSchema,
    version: z.int().min(1),
    name: nameSchema,
    category: categorySchema,
    criteria: z.array(criterionSchema).min(1),
    weights: z.record(z.string(), z.number().min(0)),
    stratumProbability: z.number().gt(0.5).max(1),
  })
  .refine((rubric) => rubric.criteria.every((c) => rubric.weights[c.id] !== undefined), {
    message: 'every criterion needs a weight',
  });
