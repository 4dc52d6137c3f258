import { z } from 'zod';
import { nameSchema } from './common';

/** Pages whose lists can be kept under a name. */
export const LIST_PAGES = ['ranking', 'gear', 'scale'] as const;
export const listPageSchema = z.enum(LIST_PAGES);
export type ListPage = z.infer<typeof listPageSchema>;

/** Body of a request that keeps a list: what the address of its page says. */
export const newSavedListSchema = z.strictObject({
  name: nameSchema,
  page: listPageSchema,
  query: z
    .record(z.string().max(40), z.string().max(500))
    .refine((query) => Object.keys(query).length <= 20, 'must not hold more than 20 parts'),
});
export type NewSavedList = z.infer<typeof newSavedListSchema>;

/** A list that is kept. */
export const savedListSchema = z.object({
  id: z.string(),
  name: z.string(),
  page: listPageSchema,
  query: z.record(z.string(), z.string()),
});
export type SavedList = z.infer<typeof savedListSchema>;
