import { z } from 'zod';

/** Another device of the owner's that the token has let in. */
export const deviceSchema = z.object({
  id: z.string(),
  /** What its browser says of itself. */
  device: z.string(),
  address: z.string(),
  since: z.string(),
  isLetIn: z.boolean().describe('False: shut out, or not seen for long; listed for what was noted from it'),
  noted: z
    .array(z.object({ what: z.string(), count: z.int(), last: z.string() }))
    .describe('What was noted from it, how often, and when the last time'),
});
export type Device = z.infer<typeof deviceSchema>;
