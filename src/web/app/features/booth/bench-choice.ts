import { z } from 'zod';
import { BENCH_FAULTS } from '#contracts/bench';

const schema = z.object({
  talker: z.string(),
  room: z.string(),
  microphone: z.string(),
  interface: z.string(),
  faults: z.array(z.enum(BENCH_FAULTS)),
});
/** What stands on the simulated bench. */
export type BenchChoice = z.infer<typeof schema>;

const KEY = 'sediment.booth.bench';
const USUAL: BenchChoice = { talker: 'high', room: 'loft', microphone: 'even', interface: 'new', faults: [] };

export function loadBenchChoice(storage: Pick<Storage, 'getItem'>): BenchChoice {
  try {
    // Faults are for one take; nobody wants yesterday's hum today.
    return { ...schema.parse(JSON.parse(storage.getItem(KEY) ?? '')), faults: [] };
  } catch {
    return USUAL;
  }
}

export function saveBenchChoice(storage: Pick<Storage, 'setItem'>, choice: BenchChoice): void {
  storage.setItem(KEY, JSON.stringify(choice));
}
