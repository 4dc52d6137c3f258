import { readToneOf, type TakeTone } from '#core/measure/take-tone';
import { openClip } from '../open-clip';

/** Order to a worker: read a take of steady tones. */
export interface MeasureToneTask {
  readonly path: string;
}

export default async function measureTone({ path }: MeasureToneTask): Promise<TakeTone | null> {
  const stream = openClip(path);
  try {
    return await readToneOf(stream);
  } finally {
    stream.close();
  }
}
