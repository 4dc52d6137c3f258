import { resample } from '#core/audio/resample';
import { difference, type Difference } from '#core/measure/difference';
import { readClip } from '../read-clip';

/** Order to a worker: how the take with a part differs from the one without it. */
export interface MeasurePairTask {
  readonly without: string;
  readonly fitted: string;
}

export default async function measurePair(task: MeasurePairTask): Promise<Difference> {
  const without = await readClip(task.without);
  const fitted = await readClip(task.fitted);
  const rate = without.format.sampleRate;
  return difference(without.samples, resample(fitted.samples, fitted.format.sampleRate, rate), rate);
}
