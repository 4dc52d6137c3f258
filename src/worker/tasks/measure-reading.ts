import { readStretch } from '#core/audio/sample-stream';
import { loopLatency } from '#core/measure/loop-latency';
import { strongestTone } from '#core/measure/strongest-tone';
import { openClip } from '../open-clip';

/** Order to a worker: read a calibrator's tone, or the delay between two channels. */
export interface MeasureReadingTask {
  readonly path: string;
}
export interface ReadingResult {
  readonly toneDbfs: number | null;
  readonly toneHz: number | null;
  readonly latencyMs: number | null;
}

/** As much as is looked at: a calibration take is short. */
const MOST_S = 10;

export default async function measureReading({ path }: MeasureReadingTask): Promise<ReadingResult> {
  const stream = openClip(path);
  try {
    const { sampleRate, frames } = stream.format;
    const channels = await readStretch(stream, 0, Math.min(frames, Math.round(MOST_S * sampleRate)));
    const tone = strongestTone(channels[0], sampleRate);
    const loop = channels.length === 2 ? loopLatency(channels[0], channels[1], sampleRate) : null;
    return { toneDbfs: tone?.dbfs ?? null, toneHz: tone?.hz ?? null, latencyMs: loop ? 1000 * loop.seconds : null };
  } finally {
    stream.close();
  }
}
