import { z } from 'zod';
import { isSoundFile } from '#core/audio/sound-files';
import { CLAIMED_QUANTITIES } from '#core/gear/kinds';
import { GAIN_DB } from '#core/rules/take-gain';
import { PRICE_KINDS, TAX_WORDS } from '#core/rules/rubric';
import { categorySchema, currencySchema, daySchema, nameSchema } from './common';
import { sheetFieldIdSchema, sheetValueSchema } from './sheet';
import { variantOfSchema } from './variant';
import { tableReadingSchema } from './table-reading';

/** Who paid for the unit. */
export const SOURCES = ['bought', 'lent', 'sent', 'own'] as const;

/** A file that lies in the run folder itself: no way out of it, no hidden names. */
export const runFileNameSchema = z
  .string()
  .min(1, 'must not be empty')
  .max(200, 'must not be longer than 200 characters')
  // eslint-disable-next-line no-control-regex -- the zero byte is one of the tricks
  .refine((name) => !/[/\\:\u0000]/.test(name) && !name.startsWith('.'), {
    message: 'must be the plain name of a file in this folder, without a path',
  })
  .refine(isSoundFile, { message: 'must be a sound file (WAV, FLAC, MP3, M4A, Ogg, Opus) or a film (MP4, MOV, WebM)' });

export const priceSchema = z.strictObject({
  amount: z
    .number()
    .positive('must be more than zero')
    .max(1e9)
    .refine((amount) => Math.abs(amount * 100 - Math.round(amount * 100)) < 1e-6, {
      message: 'must not have more than two decimals',
    }),
  currency: currencySchema,
  kind: z.enum(PRICE_KINDS),
  date: daySchema.describe('The day the price held.'),
  region: z.string().trim().max(60).optional().describe('Where it holds, in words: a country, a continent.'),
  tax: z.enum(TAX_WORDS).optional().describe('Whether the tax of that region is in it.'),
  shop: z.string().trim().max(80).optional().describe('What kind of shop asks it, in words.'),
  note: z.string().trim().max(500).optional(),
});
export type PriceInput = z.infer<typeof priceSchema>;

/** Gain as a take notes it; what a device shows instead of decibels stands in the settings, under "dial". */
export const takeGainDbSchema = z
  .number()
  .min(GAIN_DB.least)
  .max(GAIN_DB.most)
  .nullable()
  .default(null)
  .describe('Gain of the recording chain in dB; left out where settings.dial says what stood there instead.');

/** What is said where neither decibels nor a place of the dial is noted. */
export const GAIN_MISSING = 'say the gain in dB, or in settings.dial the place of the dial, "automatic" or "unknown"';
/** Whether a take says something of its gain, if only that it is not known. */
export const saysGain = (take: { readonly gainDb: number | null; readonly settings?: Readonly<Record<string, unknown>> | undefined }): boolean => take.gainDb !== null || (typeof take.settings?.['dial'] === 'string' && take.settings['dial'].trim() !== ''); // prettier-ignore

/** What a take has a level or a speed of its own for. */
export const takeLevelSchemas = {
  levelDbSpl: z.number().min(40).max(140),
  levelDbu: z.number().min(-120).max(30),
  windSpeedMs: z.number().min(0).max(60),
} as const;

const runTakeFields = z.strictObject({
  step: z.string().min(1).describe('Name of the step in the protocol, e.g. "speech".'),
  file: runFileNameSchema,
  gainDb: takeGainDbSchema,
  distanceM: z.number().positive().max(100).optional().describe('Mouth to capsule, in metres.'),
  angleDeg: z.number().min(-360).max(360).optional().describe('0 = in front, 180 = behind.'),
  levelDbSpl: takeLevelSchemas.levelDbSpl.optional().describe('Level of the calibrator in a calibration take.'),
  levelDbu: takeLevelSchemas.levelDbu.optional().describe('Level at the input in a take of a tone of known level.'),
  windSpeedMs: takeLevelSchemas.windSpeedMs.optional().describe('Wind speed at the capsule, in m/s.'),
  note: z.string().trim().max(2000).optional(),
  settings: z
    .record(z.string().max(40), z.union([z.string().max(100), z.number(), z.boolean()]))
    .optional()
    .describe('Pad, low-cut, pattern, phantom power, dial, voice, recorder: whatever shapes the result.'),
  overruled: z
    .array(z.strictObject({ check: z.string(), what: z.string(), reason: z.string() }))
    .optional()
    .describe('Checks that found something and were overruled, with the reason.'),
});
/** Whatever else is noted with a take. */
export const takeFurtherSettingsSchema = runTakeFields.shape.settings.unwrap();
export const runTakeSchema = runTakeFields.refine(saysGain, { path: ['gainDb'], message: GAIN_MISSING });
export type RunTake = z.infer<typeof runTakeSchema>;

/** A figure of the data sheet, with its conditions. */
export const claimSchema = z.strictObject({
  quantity: z.enum(CLAIMED_QUANTITIES),
  value: z.number(),
  unit: z.string().trim().min(1).max(24).describe('As the maker gives it, e.g. "dB SPL", "mV/Pa", "Hz".'),
  condition: z.string().trim().max(200).default('').describe('Weighting, load, distance: as the maker gives it.'),
});
export type Claim = z.infer<typeof claimSchema>;

export const pointsInputSchema = z.strictObject({
  criterion: z.string().min(1),
  value: z.number().min(0).max(5),
  reason: z.string().trim().max(2000).optional(),
});
export type PointsInput = z.infer<typeof pointsInputSchema>;

/** The file run.json of a run folder, format "sediment-run/1". */
export const runDocumentSchema = z
  .strictObject({
    format: z.literal('sediment-run/1'),
    specimen: z
      .strictObject({
        maker: nameSchema,
        model: nameSchema,
        label: nameSchema.describe('Tells specimens of one model apart: serial number, "A", "second unit".'),
        category: categorySchema,
        variantOf: variantOfSchema
          .optional()
          .describe('Where it is another unit in another configuration: with another connection, pattern, switch …'),
      })
      .refine(({ label, variantOf }) => variantOf?.label !== label, {
        path: ['variantOf', 'label'],
        message: 'must be the label of another unit: a unit is no configuration of itself',
      }),
    date: daySchema.describe('The day of the recording.'),
    protocol: z.string().min(1),
    protocolVersion: z.int().min(1),
    source: z.enum(SOURCES),
    prices: z.array(priceSchema).max(50).default([]),
    claims: z.array(claimSchema).max(50).default([]).describe('Claims of the data sheet that stand beside figures.'),
    sheet: z
      .record(sheetFieldIdSchema, sheetValueSchema)
      .default({})
      .describe('Fields of the data sheet by their names, each as it was typed.'),
    inputFullScaleDbu: z
      .number()
      .min(-60)
      .max(40)
      .optional()
      .describe('Input level that reaches full scale at 0 dB of gain, in dBu; ties dBFS to volts.'),
    rig: nameSchema.optional().describe('Name of the rig; its state on the day of the recording counts.'),
    purpose: z
      .enum(['opening', 'unit', 'closing'])
      .default('unit')
      .describe('Control takes open and close a session; they count for the rig, not for the unit.'),
    takes: z.array(runTakeSchema).max(200).describe('May be empty where tables are filled in.'),
    tables: z
      .array(tableReadingSchema)
      .max(50)
      .default([])
      .describe('Tables that were filled in: latency by rate and buffer, gain by dial position.'),
    points: z.array(pointsInputSchema).max(50).default([]),
  })
  .refine(({ takes, tables }) => takes.length + tables.length > 0, {
    path: ['takes'],
    message: 'must hold at least one take, or a table',
  });
export type RunDocument = z.infer<typeof runDocumentSchema>;
export type RunDocumentInput = z.input<typeof runDocumentSchema>;

/** A run whose files were uploaded before: file name in the document → clip in the archive. */
export const newRunSchema = z.strictObject({
  document: z.unknown(),
  clips: z.record(z.string(), z.string()),
});
export type NewRun = z.infer<typeof newRunSchema>;

/** What an import did. */
export const importResultSchema = z.object({
  runId: z.string(),
  specimenId: z.string(),
  /** False where the same run was there already and nothing changed. */
  created: z.boolean(),
});
export type ImportResult = z.infer<typeof importResultSchema>;
