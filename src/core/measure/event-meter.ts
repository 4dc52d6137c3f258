import type { ChannelBlock } from '../dsp/channel-block';
import { LowBandFrames } from '../dsp/low-band-frames';
import { SibilantFrames, sibilantRoom } from '../dsp/sibilant-frames';
import { largestOf, meanOf } from './over-channels';

/** What happens at single moments of a clip. */
export interface ClipEvents {
  /** Largest magnitude in the band of puffs per frame, highest channel. */
  readonly lowBandPeaks: Float64Array;
  /** Two powers per short frame, mean of the channels: body and hiss of consonants. */
  readonly sibilant: Float64Array;
  /** In samples. */
  readonly sibilantFrameLength: number;
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

/** @param channels - one meter per channel */
export const eventsOf = (channels: readonly EventMeter[]): ClipEvents => ({
  lowBandPeaks: largestOf(channels.map((m) => m.lowBand.peaks.view())),
  sibilant: meanOf(channels.map((m) => m.sibilant.values.view())),
  sibilantFrameLength: channels[0].sibilant.frameLength,
});
