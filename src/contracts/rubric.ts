import { z } from 'zod';
import { PRICE_KINDS, PRICE_MOMENTS, TOTALS_SHOWN, countedCurrency, type Rubric } from '#core/rules/rubric';
import { QUANTITY_IDS } from '#core/measure/registry';
import { gearKind } from '#core/gear/kinds';
import { categorySchema, currencySchema, daySchema, nameSchema, slugSchema } from './common';
import type { Protocol } from './protocol';
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
  z.strictObject({
    ...criterionBase,
    kind: z.literal('by-hand'),
    words: z.array(z.string().trim().max(200)).length(6).optional().describe('What each whole point means, 0 to 5.'),
    repeatability: z.number().min(0),
  }),
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
    features: z
      .array(z.strictObject({ field: sheetFieldIdSchema, is: z.string().min(1).nullable() }))
      .min(1)
      .max(40),
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
    moment: z
      .enum(PRICE_MOMENTS)
      .optional()
      .describe('Which of them: the latest where left out, that of the first test, or the cheapest of the newest.'),
    parts: z
      .strictObject({ use: nameSchema.nullable() })
      .optional()
      .describe('What it needs is paid as well: parts of every use, and of the use that is named.'),
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
    uses: z
      .array(z.strictObject({ name: nameSchema, weights: z.record(z.string(), z.number().min(0)) }))
      .max(20)
      .optional()
      .describe('Other weights for other uses.'),
    total: z.enum(TOTALS_SHOWN).optional().describe('How a total is shown; the mean of 5 where left out.'),
    stratumProbability: z.number().gt(0.5).max(1),
    upgrade: z
      .strictObject({
        clearly: z.number().gt(0.5).lt(1),
        probably: z.number().gt(0.5).lt(1),
        mostMore: z.number().min(0).max(1e9).nullable(),
      })
      .optional()
      .describe(
        'From which probabilities another unit is called clearly or probably better, and what it may cost more.',
      ),
  })
  .refine((rubric) => rubric.criteria.every((c) => rubric.weights[c.id] !== undefined), {
    message: 'every criterion needs a weight',
  });

/** A version of the rules of a kind, with the day it was saved and what was scored by it. */
export const rubricVersionSchema = z.object({
  rubric: rubricSchema,
  savedOn: daySchema,
  /** Points by hand that were given under it. */
  points: z.int(),
});
export type RubricVersion = z.infer<typeof rubricVersionSchema>;

/** What is wrong inside a rubric that has the right shape. */
export function rubricProblems(rubric: Rubric, protocols: readonly Protocol[]): { field: string; message: string }[] {
  const problems: { field: string; message: string }[] = [];
  const ids = rubric.criteria.map((c) => c.id);
  const fields = new Map(gearKind(rubric.category).sheet.map((f) => [f.id, f]));
  rubric.criteria.forEach((criterion, i) => {
    const say = (field: string, message: string): void => {
      problems.push({ field: `criteria[${i}].${field}`, message });
    };
    if (ids.indexOf(criterion.id) < i) say('id', `"${criterion.id}" is there twice`);
    const none = (id: string): string => `the sheet of this kind has no field "${id}"`;
    if (criterion.kind === 'sheet-number' && fields.get(criterion.field)?.type !== 'number')
      say('field', fields.has(criterion.field) ? 'this field is no number' : none(criterion.field));
    if (criterion.kind === 'sheet-word') {
      const type = fields.get(criterion.field)?.type;
      if (type !== 'choice' && type !== 'several' && type !== 'yes-no')
        say('field', type === undefined ? none(criterion.field) : 'this field holds no words');
    }
    if (criterion.kind === 'features')
      for (const { field } of criterion.features) if (!fields.has(field)) say('features', none(field));
    const use = criterion.kind === 'price' ? criterion.parts?.use : undefined;
    if (typeof use === 'string' && !rubric.uses?.some((u) => u.name === use))
      say('parts.use', `the rules have no use "${use}"`);
    if (criterion.kind === 'table') {
      const versions = protocols.filter((p) => p.id === criterion.protocol);
      const hasCell = versions.some((p) =>
        p.steps.some(
          (s) =>
            s.id === criterion.step &&
            s.table?.rows.includes(criterion.row) === true &&
            s.table.columns.includes(criterion.column),
        ),
      );
      if (!hasCell) say('step', `no version of "${criterion.protocol}" has this cell`);
    }
  });
  if (rubric.criteria.every((c) => (rubric.weights[c.id] ?? 0) === 0))
    problems.push({ field: 'weights', message: 'at least one criterion has to count' });
  if (rubric.upgrade && rubric.upgrade.probably > rubric.upgrade.clearly)
    problems.push({ field: 'upgrade.probably', message: 'what is clear cannot begin below what is probable' });
  if (rubric.upgrade && rubric.upgrade.mostMore !== null && countedCurrency(rubric) === null)
    problems.push({
      field: 'upgrade.mostMore',
      message: 'without a rule for the price nobody knows what it costs more',
    });
  const uses = rubric.uses?.map((u) => u.name) ?? [];
  uses.forEach((name, i) => {
    if (uses.indexOf(name) < i) problems.push({ field: `uses[${i}].name`, message: `"${name}" is there twice` });
  });
  return problems;
}
