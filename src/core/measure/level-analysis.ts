import type { AudioFormat } from '../audio/audio-format';
import { AudioFileError } from '../audio/audio-file-error';
import type { SampleStream } from '../audio/sample-stream';
import type { WaveformColumns } from '../dsp/waveform-peaks';
import type { ChannelReadings } from './channel-meters';
import { channelWeights } from './channel-weights';
import { stepsFromFrames } from './integrated-loudness';
import { levelFigures, type LevelFigures } from './level';
import { loudnessFigures, type LoudnessFigures } from './loudness';
import { speechSegments, type SpeechSegments } from './speech-segments';
import { clipReadings, type ClipReadings } from './stretch-reader';

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
  readonly waveform: WaveformColumns;
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
export async function analyseLevel(stream: SampleStream, options: LevelOptions = {}): Promise<LevelAnalysis> {
  const readings = await clipReadings(stream, 'levels', options.onProgress);
  return levelAnalysis(readings, pausesOf(readings, stream.format, options));
}

/**
 * Where a clip holds speech, and where it pauses.
 *
 * @param readings - of the whole clip
 * @param format - what its file says of it
 * @param options - settings
 * @throws {@link AudioFileError} `no-audio` for a clip without samples
 */
export function pausesOf(readings: ClipReadings, format: AudioFormat, options: LevelOptions): ClipPauses {
  const { frames, channels } = readings;
  if (frames === 0) throw new AudioFileError('no-audio', 'The file holds no samples.');
  const weights = options.dualMono && format.channels === 1 ? [2] : channelWeights(format.channels, format.channelMask);
  const framePowers = weightedFramePowers(channels, weights);
  const isZeroFrame = zeroFrames(channels);
  return {
    format: { ...format, frames },
    durationS: frames / format.sampleRate,
    segments: options.segments ?? speechSegments(framePowers, isZeroFrame),
    framePowers,
    isZeroFrame,
  };
}

/**
 * What the levels of a clip come to.
 *
 * @param readings - of the whole clip
 * @param pauses - of the same clip
 */
export function levelAnalysis(readings: ClipReadings, pauses: ClipPauses): LevelAnalysis {
  const { channels, waveform } = readings;
  const { framePowers } = pauses;
  return {
    ...pauses,
    level: levelFigures(channels),
    channels: channels.map((c) => ({ ...levelFigures([c]), truePeak: c.truePeak })),
    loudness: loudnessFigures(framePowers, Math.max(...channels.map((c) => c.truePeak))),
    stepPowers: stepsFromFrames(framePowers),
    waveform,
  };
}

function weightedFramePowers(channels: readonly ChannelReadings[], weights: readonly number[]): Float64Array {
  const sum = new Float64Array(channels[0].kWeighted.length);
  channels.forEach(({ kWeighted }, c) => {
    for (let i = 0; i < sum.length; i++) sum[i] += weights[c] * kWeighted[i];
  });
  return sum;
}

/** A square of a sample of any format is larger than zero, so a mean square of zero is a frame of zeros. */
function zeroFrames(channels: readonly ChannelReadings[]): Uint8Array {
  const isZero = new Uint8Array(channels[0].plain.length).fill(1);
  for (const { plain } of channels) for (let i = 0; i < isZero.length; i++) if (plain[i] !== 0) isZero[i] = 0;
  return isZero;
}
