import { readTone, type TakeTone } from '#core/measure/take-tone';
import { readChannels } from '../read-clip';

/** Order to a worker: read a take of steady tones. */
export interface MeasureToneTask {
  readonly path: string;
}

export default async function measureTone({ path }: MeasureToneTask): Promise<TakeTone | null> {
  const { channels, format } = await readChannels(path);
  return readTone(channels, format.sampleRate);
}
