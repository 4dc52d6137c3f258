import { z } from 'zod';

/** How clips are packed that are handed out. */
export const packingSchema = z
  .string()
  .regex(/^(flac|opus-([6-9]|[1-9][0-9]|[1-4][0-9]{2}|50[0-9]|510))$/, 'must be flac, or opus-96 with a bit rate of 6 to 510 kbit/s'); // prettier-ignore

/** Body of a request that writes the site; without a folder it stands in the data folder, under `site`. */
export const newSiteSchema = z.strictObject({
  out: z
    .string()
    .max(1000)
    .refine((path) => path.startsWith('/') || /^[A-Za-z]:[\\/]/.test(path), 'must be the whole path of a folder')
    .nullable()
    .default(null),
  clips: packingSchema.default('flac'),
});

/** What publishing a site did. */
export const siteReportSchema = z.object({
  folder: z.string(),
  pages: z.int(),
  written: z.int().describe('Files that were written'),
  kept: z.int().describe('Files that had not changed'),
  removed: z.int().describe('Files that the site has no more'),
});
export type SiteReportJson = z.infer<typeof siteReportSchema>;
