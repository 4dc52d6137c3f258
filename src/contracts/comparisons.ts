import { z } from 'zod';
import { boundSchema, measurementSchema } from './measurement';

/** One point of a response. */
export const responsePointSchema = z.object({
  hz: z.number(),
  db: z.number(),
  u: z.number().default(0).describe('Standard uncertainty by the noise of the recording, dB'),
});

const roomFigureSchema = z.object({ value: z.number(), uncertainty: z.number() }).nullable();

/** Figures of a room in one octave. */
export const roomOctaveSchema = z.object({
  centreHz: z.number(),
  edt: roomFigureSchema,
  t20: roomFigureSchema,
  t30: roomFigureSchema,
  c50: roomFigureSchema,
  directToReverberant: roomFigureSchema,
  headroomDb: z.number().describe('How far the decay stands above the noise at its beginning'),
});

/** What `sediment response --json` prints, and what the archive keeps of a recorded sweep. */
export const responseReportSchema = z.object({
  points: z.array(responsePointSchema).describe('1/24 octave apart, in dB re the played sweep (or the reference)'),
  lowestValidHz: z.number().describe('Below it the gate tells nothing'),
  gateMs: z.number(),
  /** Null without a reference. */
  reference: z.string().nullable(),
  delayS: z.number().describe('From the start of the recording to the direct sound'),
  measurements: z
    .record(z.string(), measurementSchema.omit({ quantity: true }).extend({ unit: z.string() }))
    .describe('Every figure under its registry name, with condition, uncertainty and limits'),
  room: z
    .object({ octaves: z.array(roomOctaveSchema) })
    .describe('Of the place it was recorded in (ISO 3382-2), not gated, by octave'),
  distortion: z.object({
    hz: z.number(),
    orders: z.array(z.object({ order: z.int(), db: z.number().nullable() })),
    thdDb: z.number().nullable(),
    noiseDb: z.number().nullable().describe('What noise alone puts there'),
    bound: boundSchema.describe('Next to the noise a figure is an upper limit'),
    uncertaintyDb: z.number().nullable(),
  }),
  findings: z.array(z.object({ kind: z.string(), text: z.string() })).describe('What makes the response doubtful'),
});
export type ResponseReport = z.infer<typeof responseReportSchema>;

/** What a difference says of a hidden low-cut. */
export const lowCutSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('found'),
    cornerHz: z.number(),
    cornerU: z.number().describe('Standard uncertainty of the corner, from part to part of the material'),
    order: z.int(),
    orders: z.tuple([z.int(), z.int()]).describe('Lowest and highest order that the parts agree with'),
    residualDb: z.number(),
  }),
  z.object({ kind: z.literal('none') }),
  z.object({ kind: z.literal('untold'), reason: z.string() }),
]);

const toneValueSchema = z.object({
  db: z.number().nullable(),
  u: z.number().nullable().describe('Standard uncertainty, by how far the halves of the file differ'),
});
const twoTonesSchema = z.object({
  hz: z.array(z.number()).describe('The lower tone and the higher one'),
  balanceDb: z.number().describe('The lower re the higher'),
  db: z.number().describe('Products re their reference'),
});

/** What `sediment tone --json` prints. */
export const toneReportSchema = z.object({
  isClipped: z.boolean().describe('Equal samples at the extreme: what is shown is the clipping'),
  hz: z.number().describe('Of the strongest tone of the loudest channel'),
  levelDbfs: z.number().describe('Of that tone, AES17'),
  thdPlusNoise: toneValueSchema.describe('Everything at 20 Hz–20 kHz but the tone, re the whole'),
  thd: toneValueSchema.extend({ isLimit: z.boolean().describe('The noise covers the harmonics') }),
  harmonicsDb: z.array(z.number().nullable()).describe('From the second on, re the tone'),
  dynamicRangeA: toneValueSchema.describe(
    'Full scale re what is left without the tone, A-weighted; of a tone at −60 dBFS it is the dynamic range',
  ),
  modulation: twoTonesSchema.nullable().describe('As of 60 Hz and 7 kHz, whatever two tones are there'),
  difference: twoTonesSchema.nullable().describe('As of two equal high tones'),
  channelsDbfs: z.array(z.number().nullable()).describe('Level of the tone in each channel'),
});
export type ToneReport = z.infer<typeof toneReportSchema>;

/** What `sediment difference --json` prints. */
export const differenceReportSchema = z.object({
  points: z.array(
    z.object({
      hz: z.number(),
      db: z.number().nullable().describe('Second file re first, levels matched'),
      trusted: z.boolean(),
    }),
  ),
  levelDb: z.number().describe('Level of the second file re the first: median of the trusted bands at 200 Hz–8 kHz'),
  lagS: z.number().describe('Seconds by which the second file comes later'),
  method: z.enum(['transfer', 'spectra']),
  lowCut: lowCutSchema,
});
export type DifferenceReport = z.infer<typeof differenceReportSchema>;
