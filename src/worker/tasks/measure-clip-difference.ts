import { align } from '#core/audio/alignment';
import { alignPhrases, type TimeMap } from '#core/audio/phrase-alignment';
import { resample } from '#core/audio/resample';
import { difference, type Difference } from '#core/measure/difference';
import { readClip } from '../read-clip';

/** Order to a worker: how one lane of a comparison lies to the zero lane. */
export interface MeasureClipDifferenceTask {
  readonly zero: string;
  readonly other: string;
}

export interface ClipDifferenceResult {
  readonly map: TimeMap;
  readonly difference: Difference;
}

export default async function measureClipDifference(task: MeasureClipDifferenceTask): Promise<ClipDifferenceResult> {
  const zero = await readClip(task.zero);
  const other = await readClip(task.other);
  const rate = zero.format.sampleRate;
  const samples = resample(other.samples, other.format.sampleRate, rate);
  const alignment = align(zero.samples, samples, rate);
  return {
    map: alignPhrases(zero.samples, samples, rate, alignment),
    difference: difference(zero.samples, samples, rate, {}, alignment),
  };
}
