import { sibilantFrameLength } from '../dsp/sibilant-frames';
import type { DeepReadings } from './channel-meters';
import type { Measurement } from './measurement';
import { largestOf, meanOf } from './over-channels';
import { plosives, type Plosive } from './plosives';
import { sibilance } from './sibilance';
import type { Segment } from './speech-segments';

/** What happens at single moments of a clip. */
export interface ClipEvents {
  readonly plosives: readonly Plosive[];
  readonly sibilance: Measurement;
}

/**
 * Puffs of the channel that has the highest, and hiss as the mean of the channels.
 *
 * @param channels - readings of the whole clip
 * @param speech - where somebody speaks
 * @param sampleRate - in hertz
 */
export function eventsOf(
  channels: readonly DeepReadings[],
  speech: readonly Segment[],
  sampleRate: number,
): ClipEvents {
  const frameS = sibilantFrameLength(sampleRate) / sampleRate;
  return {
    plosives: plosives(largestOf(channels.map((c) => c.lowBand)), speech),
    sibilance: sibilance(meanOf(channels.map((c) => c.sibilants)), frameS, speech),
  };
}
