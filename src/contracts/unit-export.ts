import { takeFurtherSettingsSchema } from './run-document';
import { z } from 'zod';
import { categorySchema, daySchema, sha256Schema } from './common';
import { curvesSchema } from './curves';
import { measurementSchema, unitMeasurementSchema } from './measurement';
import { photographSchema } from './photograph';
import { relationSchema } from './relation';
import { claimSchema, priceSchema } from './run-document';
import { variantOfSchema } from './variant';
import { sheetValueSchema } from './sheet';

const unit = { unit: z.string() };
const exportedSchema = measurementSchema.extend(unit);

/** All measurements of a unit in an open form, format "sediment-measurements/1". */
export const unitExportSchema = z.object({
  format: z.literal('sediment-measurements/1'),
  unit: z.object({
    ...{ maker: z.string(), model: z.string(), label: z.string(), category: categorySchema },
    variantOf: variantOfSchema.optional(),
  }),
  claims: z.array(claimSchema),
  sheet: z.record(z.string(), sheetValueSchema).describe('What stands in its data sheet, by field, as it was given.'),
  prices: z.array(priceSchema).describe('All that count, newest first.'),
  photographs: z
    .array(photographSchema.omit({ id: true }))
    .describe('By the hashes of their files, under photos/ in the data folder.'),
  relations: z
    .array(relationSchema.omit({ id: true, other: true }))
    .describe('How it stands to other units, by their names.'),
  runs: z.array(
    z.object({
      date: daySchema,
      protocol: z.string(),
      protocolVersion: z.int(),
      measurements: z.array(unitMeasurementSchema.extend(unit)),
      curves: curvesSchema,
      takes: z.array(
        z.object({
          step: z.string(),
          clipSha256: sha256Schema,
          gainDb: z.number().nullable(),
          distanceM: z.number().nullable(),
          angleDeg: z.number().nullable(),
          windSpeedMs: z.number().nullable(),
          settings: takeFurtherSettingsSchema,
          measurements: z.array(exportedSchema),
        }),
      ),
    }),
  ),
});
export type UnitExport = z.infer<typeof unitExportSchema>;
