import type { SoundCodec } from '../audio/codec';
import { readStretch, type SampleStream } from '../audio/sample-stream';
import { A_TOTAL, VALUES_PER_FRAME } from '../dsp/band-power-frames';
import type { ChannelBlock } from '../dsp/channel-block';
import type { PowerSpectrum } from '../dsp/welch';
import { meanSquareToDbfs, type Dbfs } from '../units';
import { codecReason } from './codec-decides';
import type { DropOuts } from './drop-outs';
import { EventMeter, eventsOf, type ClipEvents } from './event-meter';
import { loudestFrame, type LoudestFrame } from './knocks';
import { levelPass, type LevelAnalysis, type LevelOptions } from './level-pass';
import type { Measurement } from './measurement';
import { plosives, type Plosive } from './plosives';
import { sibilance } from './sibilance';
import { CLOSE_LOOK_S, silenceLines, type SilenceLines } from './silence-lines';
import { bitsOfEncoding, silenceNoise, type SilenceNoise } from './silence-noise';
import { SpectralMeter, spectraOf, type ClipSpectra } from './spectral-pass';
import type { Segment } from './speech-segments';
import { meanOverFrames, thirdOctaveSpectrum, type BandLevel } from './third-octave-spectrum';

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
export interface AnalysisOptions extends LevelOptions {
  /** How the sound was packed before it became samples: a lossy codec decides what noise is left. */
  readonly sound?: SoundCodec | null;
  /** Opens the clip once more for the close look at the silent part. */
  readonly reopen?: () => SampleStream | Promise<SampleStream>;
}

/** What the passes over a clip give. */
export interface ClipPasses {
  readonly level: LevelAnalysis;
  readonly events: ClipEvents;
  readonly spectra: ClipSpectra;
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
  const spectra: SpectralMeter[] = [];
  const first = await levelsAndEvents(stream, options, (block) => {
    const meter = new SpectralMeter(stream.format.sampleRate, block);
    spectra.push(meter);
    return meter;
  });
  return completeAnalysis({ ...first, spectra: spectraOf(spectra) }, options);
}

/**
 * Levels of a clip, and what happens at single moments of it: with the spectra, which another thread may take
 * meanwhile, all that {@link completeAnalysis} needs.
 *
 * @param stream - the clip; it is read to its end and not closed
 * @param options - settings
 * @param beside - makes the meter that takes the spectra of a channel in the same pass
 * @throws {@link AudioFileError} `no-audio` for a stream without samples, and whatever reading throws
 */
export async function levelsAndEvents(
  stream: SampleStream,
  options: LevelOptions,
  beside?: (block: ChannelBlock) => SpectralMeter,
): Promise<Pick<ClipPasses, 'level' | 'events'>> {
  const { sampleRate } = stream.format;
  const meters: EventMeter[] = [];
  const level = await levelPass(stream, options, {
    room: EventMeter.room(sampleRate) + (beside ? SpectralMeter.room(sampleRate) : 0),
    of: (block) => {
      const events = new EventMeter(sampleRate, block);
      meters.push(events);
      return beside ? [events, beside(block)] : [events];
    },
  });
  return { level, events: eventsOf(meters) };
}

/**
 * What follows from the passes over a clip, whoever made them.
 *
 * @param passes - all of one and the same clip
 * @param options - settings; `segments` and `dualMono` were those of the passes
 */
export async function completeAnalysis(passes: ClipPasses, options: AnalysisOptions = {}): Promise<ClipAnalysis> {
  const { level, events, spectra } = passes;
  const { bandFrames, frameLength } = spectra;
  const { segments, framePowers, isZeroFrame } = level;
  const { sampleRate, encoding } = level.format;
  const bits = bitsOfEncoding(encoding);
  const found = silenceNoise({ bandFrames, frameLength, sampleRate, framePowers, isZeroFrame, bits }, segments.silence);
  const sound = options.sound ?? null;
  const packed = codecReason(sound);
  const noise = found && packed !== null ? { ...found, refused: packed } : found;
  const quiet = noise && noise.refused === null ? noise.segment : null;
  return {
    ...level,
    noise,
    sound,
    lines: packed !== null ? null : await closeLook(quiet ?? steadyWhole(level), sampleRate, options.reopen),
    thirdOctave: thirdOctaveSpectrum(bandFrames, 0, Infinity),
    longTerm: { powers: spectra.meanPowers, binHz: sampleRate / frameLength, frames: spectra.frames },
    loudest: loudestFrame(bandFrames),
    aDbfs: meanSquareToDbfs(meanOverFrames(bandFrames, A_TOTAL, 0, bandFrames.length / VALUES_PER_FRAME)),
    plosives: plosives(events.lowBandPeaks, segments.speech),
    sibilance: sibilance(events.sibilant, events.sibilantFrameLength / sampleRate, segments.speech),
    dropOuts: spectra.dropOuts,
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
