import { z } from 'zod';

/** Another device of the owner's that the token has let in. */
export const deviceSchema = z.object({
  id: z.string(),
  /** What its browser says of itself. */
  device: z.string(),
  address: z.string(),
  since: z.string(),
});
export type Device = z.infer<typeof deviceSchema>;
