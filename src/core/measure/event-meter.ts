import type { ChannelBlock } from '../dsp/channel-block';
import { LowBandFrames } from '../dsp/low-band-frames';
import { SibilantFrames, sibilantRoom } from '../dsp/sibilant-frames';
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

/** Looks for puffs and consonants in one channel. */
export class EventMeter {
  /** Bytes that one needs behind its block. */
  static readonly room = sibilantRoom;
  readonly lowBand: LowBandFrames;
  readonly sibilant: SibilantFrames;

  /**
   * @param sampleRate - in hertz
   * @param block - the block that is pushed, with {@link EventMeter.room}
   */
  constructor(sampleRate: number, block: ChannelBlock) {
    this.lowBand = new LowBandFrames(sampleRate, block);
    this.sibilant = new SibilantFrames(sampleRate, block);
  }

  push(): void {
    this.lowBand.push();
    this.sibilant.push();
  }
}

/**
 * Puffs of the channel that has the highest, and hiss as the mean of the channels.
 *
 * @param channels - one meter per channel, at the end of the clip
 * @param speech - where somebody speaks
 * @param sampleRate - in hertz
 */
export function eventsOf(channels: readonly EventMeter[], speech: readonly Segment[], sampleRate: number): ClipEvents {
  const frameS = channels[0].sibilant.frameLength / sampleRate;
  return {
    plosives: plosives(largestOf(channels.map((m) => m.lowBand.peaks.view())), speech),
    sibilance: sibilance(meanOf(channels.map((m) => m.sibilant.values.view())), frameS, speech),
  };
}
