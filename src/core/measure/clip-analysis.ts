import type { AudioFormat } from '../audio/audio-format';
import { allocateBlock, BLOCK_FRAMES, type SampleStream } from '../audio/sample-stream';
import { AudioFileError } from '../audio/audio-file-error';
import { BlockExtremes } from '../dsp/block-extremes';
import { BandPowerFrames, VALUES_PER_FRAME } from '../dsp/band-power-frames';
import { FramePowerMeter } from '../dsp/frame-power';
import { LevelMeter } from '../dsp/level-meter';
import { TruePeakMeter } from '../dsp/true-peak';
import { WaveformPeaks } from '../dsp/waveform-peaks';
import { channelWeights } from './channel-weights';
import { stepsFromFrames } from './integrated-loudness';
import { levelFigures, type LevelFigures } from './level';
import { loudnessFigures, type LoudnessFigures } from './loudness';
import { silenceNoise, type SilenceNoise } from './silence-noise';
import { longest, speechSegments, type SpeechSegments } from './speech-segments';
import { thirdOctaveSpectrum, type BandLevel } from './third-octave-spectrum';

/** All that one pass over a clip gives. */
export interface ClipAnalysis {
  readonly format: AudioFormat;
  readonly durationS: number;
  readonly level: LevelFigures;
  readonly loudness: LoudnessFigures;
  readonly segments: SpeechSegments;
  readonly noise: SilenceNoise | null;
  /** Long-term spectrum of the whole clip. */
  readonly thirdOctave: readonly BandLevel[];
  /** K-weighted, channel-weighted power in steps of 100 ms. */
  readonly stepPowers: Float64Array;
  readonly waveform: { readonly pairs: Float32Array<ArrayBuffer>; readonly framesPerColumn: number };
}

/**
 * Measures a clip in one pass over its samples: level, loudness, true peak, spectrum and waveform together.
 * Memory does not grow with the number of samples but for a few hundred bytes per second of clip.
 *
 * @param stream - the clip; it is read to its end and not closed
 * @param onProgress - called now and then with the share that is done, 0…1
 * @throws {@link AudioFileError} `no-audio` for a stream without samples, and whatever reading throws
 */
export async function analyseClip(
  stream: SampleStream,
  onProgress: (share: number) => void = () => undefined,
): Promise<ClipAnalysis> {
  const { format } = stream;
  const block = allocateBlock(format.channels);
  const channels = block.map(() => new ChannelMeters(format.sampleRate));
  const waveform = new WaveformPeaks();
  let frames = 0;
  for (let reads = 0; ; reads++) {
    const next = stream.read(block);
    const count = typeof next === 'number' ? next : await next;
    if (count === 0) break;
    channels.forEach((meters, c) => meters.push(block[c], count));
    waveform.push(channels.map((meters) => meters.extremes));
    frames += count;
    if (reads % 64 === 0 && format.frames > 0) onProgress(frames / format.frames);
  }
  if (frames === 0) throw new AudioFileError('no-audio', 'The file holds no samples.');
  channels.forEach((meters) => meters.finish());

  const framePowers = weightedFramePowers(channels, channelWeights(format.channels, format.channelMask));
  const segments = speechSegments(framePowers);
  const bandFrames = meanBandFrames(channels);
  const bands = channels[0].bands;
  return {
    format: { ...format, frames },
    durationS: frames / format.sampleRate,
    level: levelFigures(channels),
    loudness: loudnessFigures(stepsFromFrames(framePowers), Math.max(...channels.map((c) => c.truePeak.peak))),
    segments,
    noise: silenceNoise(bandFrames, bands.frameLength, format.sampleRate, longest(segments.silence)),
    thirdOctave: thirdOctaveSpectrum(bandFrames, 0, Infinity),
    stepPowers: stepsFromFrames(framePowers),
    waveform: waveform.finish(),
  };
}

class ChannelMeters {
  readonly extremes = new BlockExtremes();
  readonly level = new LevelMeter();
  readonly frames: FramePowerMeter;
  readonly truePeak = new TruePeakMeter(BLOCK_FRAMES);
  readonly bands: BandPowerFrames;

  constructor(sampleRate: number) {
    this.frames = new FramePowerMeter(sampleRate, BLOCK_FRAMES);
    this.bands = new BandPowerFrames(sampleRate);
  }

  push(samples: Float64Array, count: number): void {
    this.extremes.scan(samples, count);
    this.level.push(samples, count, this.extremes);
    this.frames.push(samples, count);
    this.truePeak.push(samples, count, this.extremes, this.level.peak);
    this.bands.push(samples, count);
  }

  finish(): void {
    this.truePeak.finish();
    this.bands.finish();
  }
}

function weightedFramePowers(channels: readonly ChannelMeters[], weights: readonly number[]): Float64Array {
  const sum = new Float64Array(channels[0].frames.kWeighted.length);
  channels.forEach((meters, c) => {
    const powers = meters.frames.kWeighted.view();
    for (let i = 0; i < sum.length; i++) sum[i] += weights[c] * powers[i];
  });
  return sum;
}

/** Band powers averaged over channels, VALUES_PER_FRAME numbers per frame. */
function meanBandFrames(channels: readonly ChannelMeters[]): Float64Array {
  const first = channels[0].bands.values.view();
  if (channels.length === 1) return first;
  const mean = new Float64Array(first.length - (first.length % VALUES_PER_FRAME));
  for (const { bands } of channels) {
    const values = bands.values.view();
    for (let i = 0; i < mean.length; i++) mean[i] += values[i] / channels.length;
  }
  return mean;
}
