import { correlationPeak } from '#core/dsp/cross-correlation';
import { exponentialSweep } from '#core/dsp/exponential-sweep';
import type { ProtocolSweep } from '#contracts/protocol';
import { readClip } from '../read-clip';

/** Order to a worker: does this clip hold the protocol's sweep? */
export interface MeasureSweepLikenessTask {
  readonly path: string;
  readonly sweep: ProtocolSweep;
}

/** @returns the correlation coefficient of the clip with the played sweep where they match best, 0…1 */
export default async function measureSweepLikeness({ path, sweep }: MeasureSweepLikenessTask): Promise<number> {
  const { samples, format } = await readClip(path);
  return Math.abs(correlationPeak(exponentialSweep(sweep, format.sampleRate), samples).coefficient);
}
