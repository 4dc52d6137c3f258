import { z } from 'zod';

const featureSchema = z.object({ hz: z.number(), db: z.number(), widthOctaves: z.number() }).nullable();

/** One point of a response. */
export const responsePointSchema = z.object({ hz: z.number(), db: z.number() });

/** What `sediment response --json` prints, and what the archive keeps of a recorded sweep. */
export const responseReportSchema = z.object({
  points: z.array(responsePointSchema).describe('1/24 octave apart, in dB re the played sweep (or the reference)'),
  lowestValidHz: z.number().describe('Below it the gate tells nothing'),
  gateMs: z.number(),
  /** Null without a reference. */
  reference: z.string().nullable(),
  delayS: z.number().describe('From the start of the recording to the direct sound'),
  summary: z.object({
    referenceDb: z.number().nullable().describe('Mean of 500 Hz–2 kHz, to which the limits refer'),
    minus3LowHz: z.number().nullable(),
    minus3HighHz: z.number().nullable(),
    minus6LowHz: z.number().nullable(),
    minus6HighHz: z.number().nullable(),
    deviationDb: z.number().nullable().describe('± dB, 100 Hz–10 kHz, 1/3 octaves'),
    slopeDbPerOctave: z.number().nullable(),
    peak: featureSchema,
    dip: featureSchema,
    presenceDb: z.number().nullable().describe('5–9 kHz re 1–3 kHz'),
  }),
  room: z
    .object({
      edtS: z.number().nullable(),
      t20S: z.number().nullable(),
      t30S: z.number().nullable(),
      c50Db: z.number().nullable(),
      directToReverberantDb: z.number().nullable(),
      rangeDb: z.number().describe('How far the decay can be followed before it meets the noise'),
    })
    .describe('Of the place it was recorded in (ISO 3382-2), not gated'),
  distortion: z.object({
    hz: z.number(),
    orders: z.array(z.object({ order: z.int(), db: z.number().nullable() })),
    thdDb: z.number().nullable(),
    noiseDb: z.number().nullable().describe('What noise alone puts there; distortion near it is an upper limit'),
  }),
});
export type ResponseReport = z.infer<typeof responseReportSchema>;

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
  lowCut: z.object({ cornerHz: z.number(), order: z.int(), residualDb: z.number() }).nullable(),
});
export type DifferenceReport = z.infer<typeof differenceReportSchema>;
