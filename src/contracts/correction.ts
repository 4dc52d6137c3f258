import { z } from 'zod';
import { PRICE_KINDS, TAX_WORDS } from '#core/rules/rubric';
import { currencySchema, daySchema, idSchema, nameSchema, sha256Schema } from './common';
import { rigDocumentSchema } from './rig';
import { tableReadingSchema } from './table-reading';
import { newVariantSchema } from './variant';
import { takeFurtherSettingsSchema, takeGainDbSchema, takeLevelSchemas } from './run-document';

/** What can be corrected; the same shape says what stood before, so that undoing is correcting back. */
export const changeSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('unit-name'),
    unit: idSchema,
    maker: nameSchema,
    model: nameSchema,
    label: nameSchema,
  }),
  /** A unit that was entered twice is part of the other one, or stands by itself again. */
  z.strictObject({ kind: z.literal('unit-merged'), unit: idSchema, into: idSchema, isMerged: z.boolean() }),
  /** A unit is a configuration of another one, or stands by itself. */
  z.strictObject({
    kind: z.literal('unit-variant'),
    unit: idSchema,
    variant: newVariantSchema.extend({ of: idSchema }).nullable(),
  }),
  z.strictObject({
    kind: z.literal('take'),
    take: idSchema,
    gainDb: takeGainDbSchema,
    distanceM: z.number().positive().max(100).nullable(),
    angleDeg: z.number().min(-360).max(360).nullable(),
    // Corrections from before there were these do not name them: they stay as they are.
    levelDbSpl: takeLevelSchemas.levelDbSpl.nullable().optional(),
    levelDbu: takeLevelSchemas.levelDbu.nullable().optional(),
    windSpeedMs: takeLevelSchemas.windSpeedMs.nullable().optional(),
    settings: takeFurtherSettingsSchema,
    note: z.string().max(2000),
  }),
  z.strictObject({
    kind: z.literal('take-files'),
    /** One take and the clip that is really its; or two takes whose clips were mistaken for each other. */
    files: z
      .array(z.strictObject({ take: idSchema, clip: sha256Schema }))
      .min(1)
      .max(2)
      .refine((files) => new Set(files.map((f) => f.take)).size === files.length, 'must name each take once'),
  }),
  z.strictObject({ kind: z.literal('take-left-out'), take: idSchema, isOut: z.boolean() }),
  z.strictObject({ kind: z.literal('run-left-out'), run: idSchema, isOut: z.boolean() }),
  z.strictObject({ kind: z.literal('run-moved'), run: idSchema, unit: idSchema }),
  /** A table of a run is filled in, or filled in otherwise. */
  z.strictObject({
    kind: z.literal('run-table'),
    run: idSchema,
    step: z.string(),
    cells: tableReadingSchema.shape.cells,
  }),
  z.strictObject({
    kind: z.literal('price'),
    price: idSchema,
    amount: z.number().positive().max(1_000_000_000),
    currency: currencySchema,
    priceKind: z.enum(PRICE_KINDS),
    date: daySchema,
    // Corrections from before there were these do not name them.
    region: z.string().trim().max(60).default(''),
    tax: z.enum(TAX_WORDS).nullable().default(null),
    shop: z.string().trim().max(80).default(''),
    note: z.string().trim().max(500).default(''),
  }),
  z.strictObject({ kind: z.literal('price-left-out'), price: idSchema, isOut: z.boolean() }),
  z.strictObject({ kind: z.literal('photograph-left-out'), photograph: idSchema, isOut: z.boolean() }),
  z.strictObject({ kind: z.literal('answer-left-out'), answer: idSchema, isOut: z.boolean() }),
  z.strictObject({ kind: z.literal('rig'), rig: idSchema, document: rigDocumentSchema }),
  z.strictObject({ kind: z.literal('session-left-out'), session: idSchema, isOut: z.boolean() }),
  z.strictObject({ kind: z.literal('test-left-out'), test: idSchema, isOut: z.boolean() }),
]);
export type Change = z.infer<typeof changeSchema>;

/** Body of a request that corrects something. */
export const newCorrectionSchema = z.strictObject({
  change: changeSchema,
  reason: z.string().trim().max(500).default(''),
});
export type NewCorrection = z.infer<typeof newCorrectionSchema>;

/** A correction as it was made. */
export const correctionSchema = z.object({
  id: z.string(),
  kind: z.string(),
  text: z.string(),
  reason: z.string(),
  madeAt: z.string(),
  undoneAt: z.string().nullable(),
  specimens: z.array(z.string()),
});
export type Correction = z.infer<typeof correctionSchema>;
