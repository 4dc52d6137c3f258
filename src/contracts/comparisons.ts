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
