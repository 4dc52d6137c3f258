import { z } from 'zod';

/** Faults that the simulated bench can be told to make. */
export const BENCH_FAULTS = ['clip', 'hum', 'car', 'wrong-side', 'drift', 'radio', 'gap'] as const;
export type BenchFault = (typeof BENCH_FAULTS)[number];

const choice = z.object({ id: z.string(), name: z.string() });
/** What the simulated bench has on its shelves. */
export const benchPartsSchema = z.object({
  talkers: z.array(choice),
  rooms: z.array(choice),
  microphones: z.array(choice),
  interfaces: z.array(choice),
  faults: z.array(choice),
});
export type BenchParts = z.infer<typeof benchPartsSchema>;

/** One take at the simulated bench. */
export const benchTakeSchema = z.strictObject({
  talker: z.string(),
  room: z.string(),
  microphone: z.string(),
  interface: z.string(),
  faults: z.array(z.enum(BENCH_FAULTS)).default([]),
  playKind: z.string(),
  gainDb: z.number().min(-40).max(120),
  distanceM: z.number().positive().max(100).nullable(),
  angleDeg: z.number().nullable(),
  seed: z.string().max(200),
});
export type BenchTake = z.infer<typeof benchTakeSchema>;
