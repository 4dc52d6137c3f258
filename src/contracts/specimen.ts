import { z } from 'zod';
import { clipSchema } from './clip';
import { clipSummarySchema } from './clip-summary';
import { categorySchema, daySchema } from './common';
import { countedPriceSchema } from './counted-price';
import { curvesSchema } from './curves';
import { boundSchema, measurementSchema, quantitySchema, unitMeasurementSchema } from './measurement';
import { photographSchema } from './photograph';
import { stepTableSchema } from './protocol';
import { relationSchema } from './relation';
import { claimSchema, pointsInputSchema, priceSchema, runDocumentSchema } from './run-document';
import { unitEventSchema } from './session-plan';
import { sheetEntrySchema } from './sheet';
import { tableReadingSchema } from './table-reading';
import { familySchema, variantOfSchema } from './variant';

/** How far a unit has come, in the order of the work. */
export const STAGES = ['received', 'takes', 'measured', 'scored', 'published'] as const;
export const stageSchema = z.enum(STAGES);
export type Stage = z.infer<typeof stageSchema>;

/** A figure of a list: what it is, and how sure. */
const keyFigureSchema = z.object({
  quantity: quantitySchema,
  value: z.number(),
  uncertainty: z.number().nullable(),
  anotherReading: z.number().nullable(),
  bound: boundSchema,
});
export type KeyFigure = z.infer<typeof keyFigureSchema>;

/** A row of Gear. */
export const specimenRowSchema = z.object({
  id: z.string(),
  maker: z.string(),
  model: z.string(),
  label: z.string(),
  category: categorySchema,
  stage: stageSchema,
  onDesk: z.boolean(),
  firstTested: daySchema.nullable(),
  lastTested: daySchema.nullable(),
  review: z
    .object({ id: z.string(), publishedOn: daySchema.nullable().describe('The day of its newest edition') })
    .nullable()
    .describe('The review that was published last, else the one that was begun last'),
  takes: z.int(),
  failedAnalyses: z.int(),
  waitingAnalyses: z.int(),
  missingPoints: z.array(z.string()),
  price: priceSchema.nullable(),
  /** Key figures of its kind that were measured, the most telling first. */
  figures: z.array(keyFigureSchema),
  place: z.int().nullable(),
  stratum: z.int().nullable(),
  composite: z.number().nullable(),
  /** Whether there are rules by which its kind is scored and ranked. */
  hasRules: z.boolean(),
  /** Blind answers that it took part in. */
  heardAnswers: z.int(),
  /** What its sheet says in the columns that lists of its kind show: numbers in the unit of the field. */
  sheet: z.record(z.string(), z.union([z.number(), z.boolean(), z.array(z.string())])),
  /** What it is by the fields of its sheet that divide its kind. */
  classes: z.record(z.string(), z.array(z.string())),
  /** Where it stands, of those that are one unit in several configurations; null for any other. */
  family: familySchema.nullable(),
});
export type SpecimenRow = z.infer<typeof specimenRowSchema>;

export const analysisStateSchema = z.object({
  id: z.string(),
  status: z.enum(['queued', 'running', 'done', 'failed']),
  reason: z.string().nullable(),
  attempts: z.int(),
});

export const takeSchema = z.object({
  id: z.string(),
  step: z.string(),
  stepTitle: z.string(),
  clip: clipSchema,
  gainDb: z.number().nullable().describe('Null where the device shows no decibels: settings.dial says what it shows.'),
  distanceM: z.number().nullable(),
  angleDeg: z.number().nullable(),
  levelDbSpl: z.number().nullable().describe('Of the calibrator, where the take says another one than its step'),
  levelDbu: z.number().nullable().describe('At the input, where the take says another one than its step'),
  windSpeedMs: z.number().nullable(),
  note: z.string(),
  settings: z.record(z.string(), z.union([z.string(), z.number(), z.boolean()])),
  overruled: z.array(z.object({ check: z.string(), what: z.string(), reason: z.string() })),
  analysis: analysisStateSchema,
  summary: clipSummarySchema.nullable(),
  measurements: z.array(measurementSchema),
});
export type Take = z.infer<typeof takeSchema>;

export const runSchema = z.object({
  id: z.string(),
  date: daySchema,
  protocol: z.string(),
  protocolVersion: z.int(),
  source: z.string(),
  purpose: z.enum(['opening', 'unit', 'closing']),
  rig: z.string().nullable(),
  takes: z.array(takeSchema),
  /** Takes of its session that nobody had decided on when it was made: they count for nothing, and are not lost. */
  undecided: z.array(
    z.object({ id: z.string(), step: z.string(), title: z.string(), attempt: z.int(), clip: clipSchema }),
  ),
  tables: z
    .array(
      tableReadingSchema.extend({
        title: z.string(),
        unit: z.string(),
        cell: z.string(),
        role: z.string().describe('Of its step: what its figures are read from'),
        asked: stepTableSchema.nullable().describe('Rows and columns that its protocol asks for'),
      }),
    )
    .describe('Every table of its protocol; without cells it is not filled in.'),
  /** Figures corrected for the rig, where its policy says so: what to take off, and why. */
  corrections: z.array(
    z.object({ quantity: z.string(), value: z.number(), uncertainty: z.number(), offset: z.number() }),
  ),
  /** Figures that take several clips, or say something of the unit. */
  measurements: z.array(unitMeasurementSchema),
  curves: curvesSchema,
});
export type Run = z.infer<typeof runSchema>;

/** Points given by hand, as kept. */
export const givenPointsSchema = pointsInputSchema.extend({ date: daySchema, reason: z.string().nullable() });
export type GivenPoints = z.infer<typeof givenPointsSchema>;

/** Everything on a unit's page. */
export const specimenSheetSchema = z.object({
  row: specimenRowSchema,
  prices: z.array(countedPriceSchema.extend({ id: z.string() })),
  /** Of the data sheet; of each quantity the newest. */
  claims: z.array(claimSchema),
  /** All that was ever filled in, newest first; the newest of each field counts. */
  sheet: z.array(sheetEntrySchema),
  /** What it is a configuration of; null where it is none. */
  variantOf: variantOfSchema.nullable(),
  /** How it stands to other units. */
  relations: z.array(relationSchema),
  photographs: z.array(photographSchema),
  /** Repairs, firmware, days to be back; newest first. */
  events: z.array(unitEventSchema),
  runs: z.array(runSchema),
  /** Words that listeners had for it, most frequent first. */
  words: z.array(z.object({ word: z.string(), count: z.int(), isFree: z.boolean() })),
  /** All points ever given, newest first; the newest of each criterion counts. */
  points: z.array(givenPointsSchema),
});
export type SpecimenSheet = z.infer<typeof specimenSheetSchema>;

/** Body of a request that gives points. */
export const newPointsSchema = pointsInputSchema;
/** Body of a request that notes a price. */
export const newPriceSchema = priceSchema;
/** Body of a request that notes a unit before it is tested. */
export const newUnitSchema = runDocumentSchema.shape.specimen;
export type NewUnit = z.infer<typeof newUnitSchema>;
/** Body of a request that moves a unit on or off the desk. */
export const custodySchema = z.strictObject({ onDesk: z.boolean() });
