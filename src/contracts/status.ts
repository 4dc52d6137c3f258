import { z } from 'zod';

/** What `GET /api/status` answers; the command line uses it to find a running server. */
export const statusSchema = z.object({
  product: z.literal('sediment'),
  version: z.string(),
  dataFolder: z.string(),
  demo: z.boolean(),
});
export type Status = z.infer<typeof statusSchema>;
