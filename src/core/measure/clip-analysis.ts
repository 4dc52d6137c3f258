import type { SoundCodec } from '../audio/codec';
import { codecReason } from './codec-decides';
import type { AudioFormat } from '../audio/audio-format';
import { readStretch, type SampleStream } from '../audio/sample-stream';
import { AudioFileError } from '../audio/audio-file-error';
import { A_TOTAL, BandPowerFrames, VALUES_PER_FRAME } from '../dsp/band-power-frames';
import { ChannelBlock } from '../dsp/channel-block';
import { DropOutDetector } from '../dsp/drop-out-detector';
import { FramePowerMeter } from '../dsp/frame-power';
import { LevelMeter } from '../dsp/level-meter';
import { LowBandFrames } from '../dsp/low-band-frames';
import { SibilantFrames } from '../dsp/sibilant-frames';
import { TruePeakMeter } from '../dsp/true-peak';
import { WaveformPeaks } from '../dsp/waveform-peaks';
import type { PowerSpectrum } from '../dsp/welch';
import { channelWeights } from './channel-weights';
import { worstChannel, type DropOuts } from './drop-outs';
import { stepsFromFrames } from './integrated-loudness';
import { loudestFrame, type LoudestFrame } from './knocks';
import { levelFigures, type LevelFigures } from './level';
import { loudnessFigures, type LoudnessFigures } from './loudness';
import type { Measurement } from './measurement';
import { plosives, type Plosive } from './plosives';
import { sibilance } from './sibilance';
import { CLOSE_LOOK_S, silenceLines, type SilenceLines } from './silence-lines';
import { bitsOfEncoding, silenceNoise, type SilenceNoise } from './silence-noise';
import { speechSegments, type Segment, type SpeechSegments } from './speech-segments';
import { meanOverFrames, thirdOctaveSpectrum, type BandLevel } from './third-octave-spectrum';
import { meanSquareToDbfs, type Dbfs } from '../units';

/** What one pass over a clip gives when only level and loudness are wanted. */
export interface LevelAnalysis {
  readonly format: AudioFormat;
  readonly durationS: number;
  readonly level: LevelFigures;
  /** The same for each channel alone, with its true peak (linear). */
  readonly channels: readonly (LevelFigures & { readonly truePeak: number })[];
  readonly loudness: LoudnessFigures;
  readonly segments: SpeechSegments;
  /** K-weighted, channel-weighted mean squares in frames of 20 ms. */
  readonly framePowers: Float64Array;
  /** 1 for each such frame in which all samples of all channels are zero: silence is told by samples, not by levels. */
  readonly isZeroFrame: Uint8Array;
  /** The same in steps of 100 ms. */
  readonly stepPowers: Float64Array;
  readonly waveform: { readonly pairs: Float32Array<ArrayBuffer>; readonly framesPerColumn: number };
}

/** All that an analysis gives. */
export interface ClipAnalysis extends LevelAnalysis {
  readonly noise: SilenceNoise | null;
  /** Close look at the silent part; null where there is none, or the clip could not be opened twice. */
  readonly lines: SilenceLines | null;
  /** Long-term spectrum of the whole clip in third octaves, and in full resolution. */
  readonly thirdOctave: readonly BandLevel[];
  readonly longTerm: PowerSpectrum;
  readonly loudest: LoudestFrame;
  /** A-weighted level of the whole clip, 20 Hz–20 kHz, AES17. */
  readonly aDbfs: Dbfs;
  readonly plosives: readonly Plosive[];
  readonly sibilance: Measurement;
  readonly dropOuts: DropOuts;
  /** How the sound was packed before it became samples; null for a recording that never was. */
  readonly sound: SoundCodec | null;
}

/** Settings of an analysis. */
export interface AnalysisOptions {
  /** A one-channel clip counts as played by two loudspeakers (+3.01 LU). */
  readonly dualMono?: boolean;
  /** Segments that stand in for the automatic ones. */
  readonly segments?: SpeechSegments | null;
  /** How the sound was packed before it became samples: a lossy codec decides what noise is left. */
  readonly sound?: SoundCodec | null;
  /** Opens the clip once more for the close look at the silent part. */
  readonly reopen?: () => SampleStream | Promise<SampleStream>;
  /** Called now and then with the share that is done, 0…1. */
  readonly onProgress?: (share: number) => void;
}

/**
 * Measures a clip in one pass over its samples: level, loudness, true peak, spectrum, behaviour and waveform together;
 * then, where the clip can be opened again, at most half a minute of its longest pause is read once more for lines and
 * quasi-peak noise. Memory grows by some two kilobytes per second of clip.
 *
 * @param stream - the clip; it is read to its end and not closed
 * @param options - settings
 * @throws {@link AudioFileError} `no-audio` for a stream without samples, and whatever reading throws
 */
export async function analyseClip(stream: SampleStream, options: AnalysisOptions = {}): Promise<ClipAnalysis> {
  const { sampleRate } = stream.format;
  const spectral: SpectralMeters[] = [];
  const base = await levelPass(stream, options, (block) => {
    const meters = new SpectralMeters(sampleRate, block);
    spectral.push(meters);
    return meters;
  });
  const bandFrames = meanBandFrames(spectral.map((m) => m.bands.values.view()));
  const { frameLength } = spectral[0].bands;
  const { segments } = base;
  const { framePowers, isZeroFrame } = base;
  const bits = bitsOfEncoding(base.format.encoding);
  const found = silenceNoise({ bandFrames, frameLength, sampleRate, framePowers, isZeroFrame, bits }, segments.silence);
  const sound = options.sound ?? null;
  const packed = codecReason(sound);
  const noise = found && packed !== null ? { ...found, refused: packed } : found;
  const quiet = noise && noise.refused === null ? noise.segment : null;
  return {
    ...base,
    noise,
    sound,
    lines: packed !== null ? null : await closeLook(quiet ?? steadyWhole(base), sampleRate, options.reopen),
    thirdOctave: thirdOctaveSpectrum(bandFrames, 0, Infinity),
    longTerm: {
      powers: meanOf(spectral.map((m) => m.bands.meanPowers())),
      binHz: sampleRate / frameLength,
      frames: spectral[0].bands.frames,
    },
    loudest: loudestFrame(bandFrames),
    aDbfs: meanSquareToDbfs(meanOverFrames(bandFrames, A_TOTAL, 0, bandFrames.length / VALUES_PER_FRAME)),
    plosives: plosives(largestOf(spectral.map((m) => m.lowBand.peaks.view())), segments.speech),
    sibilance: sibilance(
      meanOf(spectral.map((m) => m.sibilant.values.view())),
      spectral[0].sibilant.frameLength / sampleRate,
      segments.speech,
    ),
    dropOuts: worstChannel(spectral.map((m) => m.dropOuts)),
  };
}

/**
 * Level, loudness, true peak, loudness range, segments and waveform alone, for meters and level matching.
 *
 * @param stream - as for {@link analyseClip}
 * @param options - settings; `reopen` is not used
 */
export function analyseLevel(stream: SampleStream, options: AnalysisOptions = {}): Promise<LevelAnalysis> {
  return levelPass(stream, options, () => null);
}

/** Takes the block that the level meters have seen. */
interface FurtherMeters {
  push(): void;
  finish(): void;
}

async function levelPass(
  stream: SampleStream,
  options: AnalysisOptions,
  further: (block: ChannelBlock) => FurtherMeters | null,
): Promise<LevelAnalysis> {
  const { format } = stream;
  const blocks = Array.from({ length: format.channels }, () => new ChannelBlock());
  const samples = blocks.map((block) => block.samples);
  const channels = blocks.map((block) => new LevelMeters(format.sampleRate, block, further(block)));
  const waveform = new WaveformPeaks();
  let frames = 0;
  for (let reads = 0; ; reads++) {
    const next = stream.read(samples);
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
  return {
    format: { ...format, frames },
    durationS: frames / format.sampleRate,
    level: levelFigures(channels),
    channels: channels.map((c) => ({ ...levelFigures([c]), truePeak: c.truePeak.peak })),
    loudness: loudnessFigures(framePowers, Math.max(...channels.map((c) => c.truePeak.peak))),
    segments: options.segments ?? speechSegments(framePowers, isZeroFrame),
    framePowers,
    isZeroFrame,
    stepPowers: stepsFromFrames(framePowers),
    waveform: waveform.finish(),
  };
}

/** A steady clip without speech or pause (noise at full gain, a motor) is looked at for lines as a whole. */
function steadyWhole({ segments, durationS }: LevelAnalysis): Segment | null {
  const { speech, silence, events } = segments;
  return speech.length + silence.length + events.length === 0 ? { startS: 0, endS: durationS } : null;
}

async function closeLook(
  pause: Segment | null,
  sampleRate: number,
  reopen: AnalysisOptions['reopen'],
): Promise<SilenceLines | null> {
  if (!pause || !reopen) return null;
  const again = await reopen();
  try {
    const to = Math.min(pause.endS, pause.startS + CLOSE_LOOK_S);
    const stretch = await readStretch(again, Math.ceil(pause.startS * sampleRate), Math.floor(to * sampleRate));
    return silenceLines(stretch, sampleRate);
  } finally {
    again.close();
  }
}

class LevelMeters {
  readonly level = new LevelMeter();
  readonly frames: FramePowerMeter;
  readonly truePeak: TruePeakMeter;

  constructor(
    sampleRate: number,
    private readonly block: ChannelBlock,
    private readonly further: FurtherMeters | null,
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
    this.further?.push();
  }

  finish(): void {
    this.truePeak.finish();
    this.further?.finish();
  }
}

class SpectralMeters implements FurtherMeters {
  readonly bands: BandPowerFrames;
  readonly sibilant: SibilantFrames;
  readonly lowBand: LowBandFrames;
  readonly dropOuts: DropOutDetector;

  constructor(
    sampleRate: number,
    private readonly block: ChannelBlock,
  ) {
    this.bands = new BandPowerFrames(sampleRate);
    this.sibilant = new SibilantFrames(sampleRate);
    this.lowBand = new LowBandFrames(sampleRate, block);
    this.dropOuts = new DropOutDetector(sampleRate);
  }

  push(): void {
    const { samples, count } = this.block;
    this.bands.push(samples, count);
    this.sibilant.push(samples, count);
    this.lowBand.push();
    this.dropOuts.push(this.block);
  }

  finish(): void {
    this.bands.finish();
    this.dropOuts.finish();
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
  return Uint8Array.from(powers[0], (_, i) => (powers.every((p) => p[i] === 0) ? 1 : 0));
}

/** Band powers averaged over channels, VALUES_PER_FRAME numbers per whole frame. */
function meanBandFrames(channels: readonly Float64Array[]): Float64Array {
  const mean = meanOf(channels);
  return mean.subarray(0, mean.length - (mean.length % VALUES_PER_FRAME));
}

/** Mean of arrays, number by number. */
function meanOf(arrays: readonly Float64Array[]): Float64Array {
  return arrays.length === 1
    ? arrays[0]
    : arrays[0].map((_, i) => arrays.reduce((s, values) => s + values[i], 0) / arrays.length);
}

function largestOf(arrays: readonly Float64Array[]): Float64Array {
  return arrays.length === 1 ? arrays[0] : arrays[0].map((_, i) => Math.max(...arrays.map((values) => values[i])));
}
