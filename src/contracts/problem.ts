import { z } from 'zod';

/** One thing that is wrong, and where. */
export const problemDetailSchema = z.object({
  file: z.string().nullable(),
  field: z.string().nullable(),
  message: z.string(),
});
export type ProblemDetail = z.infer<typeof problemDetailSchema>;

/** The body of every error response. */
export const problemSchema = z.object({
  error: z.object({
    code: z.string(),
    /** What happened. */
    message: z.string(),
    /** What is safe. */
    safe: z.string(),
    /** What to do. */
    next: z.string(),
    details: z.array(problemDetailSchema),
    /** Set where a part of a truncated file can be kept. */
    truncation: z.object({ claimedS: z.number().nullable(), presentS: z.number() }).nullable().default(null),
  }),
});
export type Problem = z.infer<typeof problemSchema>['error'];
