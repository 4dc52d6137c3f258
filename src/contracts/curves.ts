import { z } from 'zod';
import { responsePointSchema } from './comparisons';

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
        z.object({ angleDeg: z.number(), broadbandDb: z.number(), octavesDb: z.array(z.number().nullable()) }),
      ),
      pattern: z
        .object({
          alpha: z.number(),
          randomEnergyEfficiency: z.number(),
          directivityIndexDb: z.number(),
          residual: z.number(),
        })
        .nullable(),
    })
    .nullable()
    .default(null),
  distance: z
    .object({
      rungs: z.array(z.object({ distanceM: z.number(), db: z.number() })),
      fit: z.object({
        directDb: z.number(),
        reverberantDb: levelSchema,
        criticalM: z.number().nullable(),
        residualDb: z.number(),
      }),
    })
    .nullable()
    .default(null),
});
export type Curves = z.infer<typeof curvesSchema>;
