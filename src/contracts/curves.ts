import { z } from 'zod';
import { responsePointSchema, roomOctaveSchema } from './comparisons';

/** −∞ travels as null. */
const levelSchema = z.number().nullable();

/** Curves of a run, as they are kept and drawn. */
export const curvesSchema = z.object({
  response: z
    .object({ points: z.array(responsePointSchema), lowestValidHz: z.number(), gateMs: z.number() })
    .nullable()
    .default(null),
  polar: z
    .object({
      levels: z.array(
        z.object({
          angleDeg: z.number(),
          broadbandDb: z.number(),
          u: z.number().default(0),
          octavesDb: z.array(z.number().nullable()),
        }),
      ),
      pattern: z
        .object({
          alpha: z.number(),
          alphaU: z.number().default(0),
          randomEnergyEfficiency: z.number(),
          directivityIndexDb: z.number(),
          residual: z.number(),
        })
        .nullable(),
    })
    .nullable()
    .default(null),
  room: z
    .object({ octaves: z.array(roomOctaveSchema) })
    .nullable()
    .default(null),
  distance: z
    .object({
      rungs: z.array(z.object({ distanceM: z.number(), db: z.number() })),
      fit: z.object({
        directDb: z.number(),
        reverberantDb: levelSchema,
        criticalM: z.number().nullable(),
        critical95: z.tuple([z.number(), z.number().nullable()]).nullable().default(null),
        residualDb: z.number(),
      }),
    })
    .nullable()
    .default(null),
});
export type Curves = z.infer<typeof curvesSchema>;
