import type { AudioFormat } from '../audio/audio-format';
import { AudioFileError } from '../audio/audio-file-error';
import type { SampleStream } from '../audio/sample-stream';
import { ChannelBlock } from '../dsp/channel-block';
import { FramePowerMeter } from '../dsp/frame-power';
import { LevelMeter } from '../dsp/level-meter';
import { TruePeakMeter } from '../dsp/true-peak';
import { WaveformPeaks } from '../dsp/waveform-peaks';
import { channelWeights } from './channel-weights';
import { stepsFromFrames } from './integrated-loudness';
import { levelFigures, type LevelFigures } from './level';
import { loudnessFigures, type LoudnessFigures } from './loudness';
import { speechSegments, type SpeechSegments } from './speech-segments';

/** Where a clip holds speech and where it pauses, and what tells so. */
export interface ClipPauses {
  readonly format: AudioFormat;
  readonly durationS: number;
  readonly segments: SpeechSegments;
  /** K-weighted, channel-weighted mean squares in frames of 20 ms. */
  readonly framePowers: Float64Array;
  /** 1 for each such frame in which all samples of all channels are zero: silence is told by samples, not by levels. */
  readonly isZeroFrame: Uint8Array;
}

/** What one pass over a clip gives when only level and loudness are wanted. */
export interface LevelAnalysis extends ClipPauses {
  readonly level: LevelFigures;
  /** The same for each channel alone, with its true peak (linear). */
  readonly channels: readonly (LevelFigures & { readonly truePeak: number })[];
  readonly loudness: LoudnessFigures;
  /** K-weighted, channel-weighted mean squares in steps of 100 ms. */
  readonly stepPowers: Float64Array;
  readonly waveform: { readonly pairs: Float32Array<ArrayBuffer>; readonly framesPerColumn: number };
}

/** Settings of a pass over the samples. */
export interface LevelOptions {
  /** A one-channel clip counts as played by two loudspeakers (+3.01 LU). */
  readonly dualMono?: boolean;
  /** Segments that stand in for the automatic ones. */
  readonly segments?: SpeechSegments | null;
  /** Called now and then with the share that is done, 0…1. */
  readonly onProgress?: (share: number) => void;
}

/**
 * Level, loudness, true peak, loudness range, segments and waveform alone, for meters and level matching.
 *
 * @param stream - it is read to its end and not closed
 * @param options - settings
 * @throws {@link AudioFileError} `no-audio` for a stream without samples, and whatever reading throws
 */
export function analyseLevel(stream: SampleStream, options: LevelOptions = {}): Promise<LevelAnalysis> {
  return levelPass(stream, options, { room: 0, past: 0, of: () => [] });
}

/** A further meter of one channel, over the block that its level meters have seen. */
export interface FurtherMeter {
  push(): void;
  /** Where the end of the clip closes something. */
  finish?(): void;
}

/** The further meters of a pass. */
export interface FurtherMeters {
  /** Bytes that those of a channel need behind its block. */
  readonly room: number;
  /** Samples from before a block that they ask for. */
  readonly past: number;
  /** Makes those of a channel. */
  readonly of: (block: ChannelBlock) => readonly FurtherMeter[];
  /** Told at the end of the clip, before its levels are reckoned: somebody may go on with them meanwhile. */
  readonly onPauses?: (pauses: ClipPauses) => void;
}

/**
 * {@link analyseLevel}, with further meters over the same samples.
 *
 * @param stream - the clip; it is read to its end and not closed
 * @param options - settings
 * @param further - those meters
 */
export async function levelPass(
  stream: SampleStream,
  options: LevelOptions,
  further: FurtherMeters,
): Promise<LevelAnalysis> {
  const { format } = stream;
  const blocks = Array.from({ length: format.channels }, () => new ChannelBlock(further.room, further.past));
  const channels = blocks.map((block) => new LevelMeters(format.sampleRate, block, further.of(block)));
  const waveform = new WaveformPeaks();
  let frames = 0;
  for (let reads = 0; ; reads++) {
    const next = stream.read(blocks.map((block) => block.next()));
    const count = typeof next === 'number' ? next : await next;
    if (count === 0) break;
    channels.forEach((meters) => meters.push(count));
    waveform.push(blocks);
    frames += count;
    if (reads % 64 === 0 && format.frames > 0) options.onProgress?.(frames / format.frames);
  }
  if (frames === 0) throw new AudioFileError('no-audio', 'The file holds no samples.');
  channels.forEach((meters) => meters.finish());
  const weights = options.dualMono && format.channels === 1 ? [2] : channelWeights(format.channels, format.channelMask);
  const framePowers = weightedFramePowers(channels, weights);
  const isZeroFrame = zeroFrames(channels);
  const pauses: ClipPauses = {
    format: { ...format, frames },
    durationS: frames / format.sampleRate,
    segments: options.segments ?? speechSegments(framePowers, isZeroFrame),
    framePowers,
    isZeroFrame,
  };
  further.onPauses?.(pauses);
  return {
    ...pauses,
    level: levelFigures(channels),
    channels: channels.map((c) => ({ ...levelFigures([c]), truePeak: c.truePeak.peak })),
    loudness: loudnessFigures(framePowers, Math.max(...channels.map((c) => c.truePeak.peak))),
    stepPowers: stepsFromFrames(framePowers),
    waveform: waveform.finish(),
  };
}

class LevelMeters {
  readonly level = new LevelMeter();
  readonly frames: FramePowerMeter;
  readonly truePeak: TruePeakMeter;

  constructor(
    sampleRate: number,
    private readonly block: ChannelBlock,
    private readonly further: readonly FurtherMeter[],
  ) {
    this.frames = new FramePowerMeter(sampleRate, block);
    this.truePeak = new TruePeakMeter(block);
  }

  /** @param count - samples that were filled into the block */
  push(count: number): void {
    this.block.scan(count);
    this.level.push(this.block);
    this.frames.push();
    this.truePeak.push(this.level.peak);
    for (const meter of this.further) meter.push();
  }

  finish(): void {
    this.truePeak.finish();
    for (const meter of this.further) meter.finish?.();
  }
}

function weightedFramePowers(channels: readonly LevelMeters[], weights: readonly number[]): Float64Array {
  const sum = new Float64Array(channels[0].frames.kWeighted.length);
  channels.forEach((meters, c) => {
    const powers = meters.frames.kWeighted.view();
    for (let i = 0; i < sum.length; i++) sum[i] += weights[c] * powers[i];
  });
  return sum;
}

/** A square of a sample of any format is larger than zero, so a mean square of zero is a frame of zeros. */
function zeroFrames(channels: readonly LevelMeters[]): Uint8Array {
  const powers = channels.map((meters) => meters.frames.plain.view());
  const isZero = new Uint8Array(powers[0].length).fill(1);
  for (const channel of powers) for (let i = 0; i < isZero.length; i++) if (channel[i] !== 0) isZero[i] = 0;
  return isZero;
}
