import { z } from 'zod';

/** Something that cannot be used as it is, and what to do about it. */
const setAsideSchema = z.object({
  kind: z.enum(['clip', 'run', 'recording', 'test', 'job', 'file', 'photograph', 'original']),
  name: z.string(),
  problem: z.string(),
  next: z.string(),
});

/** How the archive is: what lies in it, what was checked, what is wrong. */
export const archiveStateSchema = z.object({
  folder: z.string(),
  freeBytes: z.number(),
  clips: z.int(),
  bytes: z.number(),
  /** Clips whose bytes were read and held against their name at least once. */
  checked: z.int(),
  oldestCheck: z.string().nullable(),
  /** Photographs, and the originals of decoded clips. */
  files: z.int(),
  filesChecked: z.int(),
  isChecking: z.boolean(),
  setAside: z.array(setAsideSchema),
});
export type ArchiveState = z.infer<typeof archiveStateSchema>;
