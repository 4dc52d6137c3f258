import { BLOCK_FRAMES } from '../audio/sample-stream';
import { ChannelBlock } from '../dsp/channel-block';
import { FRAMES_PER_SECOND, FramePowerMeter } from '../dsp/frame-power';
import { LevelMeter } from '../dsp/level-meter';
import { TruePeakMeter } from '../dsp/true-peak';
import { amplitudeToDb, dbfs, dbtp, meanSquareToDbfs, type Dbfs, type Dbtp, type Lufs } from '../units';
import { channelWeights } from './channel-weights';
import { MOMENTARY_FRAMES, powerToLufs } from './integrated-loudness';

/** What a level bar shows. */
export interface LiveLevels {
  /** Highest sample since the last reading, dBFS; −∞ for digital silence. */
  readonly recentPeakDbfs: Dbfs;
  /** Highest sample of the take so far. */
  readonly peakDbfs: Dbfs;
  readonly truePeakDbtp: Dbtp;
  /** RMS of the last 0.3 s, AES17. */
  readonly rmsDbfs: Dbfs;
  /** Loudness of the last 0.4 s, BS.1770-5; −∞ before. */
  readonly momentaryLufs: Lufs;
  readonly clippedRuns: number;
  readonly frames: number;
}

const RMS_FRAMES = 0.3 * FRAMES_PER_SECOND;

/**
 * The meters of an analysis, readable while they run: the same kernels over the same samples, so that what the level bar
 * says is what the archive will say. Power is kept for the last second only in what it reads, but grows by 16 bytes per
 * 20 ms and channel as in an analysis (2.9 MB an hour).
 */
export class LiveMeter {
  private readonly channels: readonly {
    block: ChannelBlock;
    level: LevelMeter;
    frames: FramePowerMeter;
    truePeak: TruePeakMeter;
  }[];
  private readonly weights: readonly number[];
  private recentPeak = 0;
  private count = 0;

  /**
   * @param sampleRate - in hertz
   * @param channels - one or two
   */
  constructor(sampleRate: number, channels: number) {
    this.weights = channelWeights(channels, null);
    this.channels = Array.from({ length: channels }, () => {
      const block = new ChannelBlock();
      return {
        block,
        level: new LevelMeter(),
        frames: new FramePowerMeter(sampleRate, block),
        truePeak: new TruePeakMeter(block),
      };
    });
  }

  /** @param samples - one array per channel, equally long, full scale ±1, of any length */
  push(samples: readonly ArrayLike<number>[]): void {
    const length = samples[0]?.length ?? 0;
    for (let at = 0; at < length; at += BLOCK_FRAMES) {
      const count = Math.min(BLOCK_FRAMES, length - at);
      this.channels.forEach(({ block, level, frames, truePeak }, c) => {
        const into = block.next();
        for (let i = 0; i < count; i++) {
          const x = samples[c][at + i];
          into[i] = x;
          if (Math.abs(x) > this.recentPeak) this.recentPeak = Math.abs(x);
        }
        block.scan(count);
        level.push(block);
        frames.push();
        truePeak.push(level.peak);
      });
      this.count += count;
    }
  }

  /** The levels now; the recent peak starts anew. */
  read(): LiveLevels {
    const recent = this.recentPeak;
    this.recentPeak = 0;
    return {
      recentPeakDbfs: dbfs(amplitudeToDb(recent)),
      peakDbfs: dbfs(amplitudeToDb(Math.max(0, ...this.channels.map((c) => c.level.peak)))),
      truePeakDbtp: dbtp(amplitudeToDb(Math.max(0, ...this.channels.map((c) => c.truePeak.peak)))),
      rmsDbfs: meanSquareToDbfs(this.meanOfLast(RMS_FRAMES, false) / this.channels.length),
      momentaryLufs: powerToLufs(this.meanOfLast(MOMENTARY_FRAMES, true)),
      clippedRuns: this.channels.reduce((s, c) => s + c.level.clippedRuns, 0),
      frames: this.count,
    };
  }

  /** Closes the true-peak filter at the end of a take. */
  finish(): LiveLevels {
    this.channels.forEach((c) => c.truePeak.finish());
    return this.read();
  }

  /** Mean power of the last frames over all channels; 0 before the first, and for loudness before it has its window. */
  private meanOfLast(frames: number, isWeighted: boolean): number {
    let sum = 0;
    for (const [c, { frames: meter }] of this.channels.entries()) {
      const powers = (isWeighted ? meter.kWeighted : meter.plain).view();
      if (powers.length === 0 || (isWeighted && powers.length < frames)) return 0;
      const from = Math.max(0, powers.length - frames);
      let part = 0;
      for (let i = from; i < powers.length; i++) part += powers[i];
      sum += ((isWeighted ? this.weights[c] : 1) * part) / (powers.length - from);
    }
    return sum;
  }
}
