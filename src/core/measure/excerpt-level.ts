import { memoryStream } from '../audio/memory-stream';
import { analyseLevel } from './level-analysis';
import type { MatchedClip } from './level-match';

/**
 * Loudness and true peak of an excerpt that is in memory.
 *
 * @param samples - one channel
 * @param sampleRate - in hertz
 */
export async function excerptLevel(samples: Float64Array, sampleRate: number): Promise<MatchedClip> {
  const { integratedLufs, truePeakDbtp } = (await analyseLevel(memoryStream([samples], sampleRate))).loudness;
  return { integratedLufs, truePeakDbtp };
}
