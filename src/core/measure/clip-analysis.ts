import type { SoundCodec } from '../audio/codec';
import { readStretch, type SampleStream } from '../audio/sample-stream';
import type { DeepReadings } from './channel-meters';
import { eventsOf, type ClipEvents } from './clip-events';
import { spectraOf, type ClipSpectra } from './clip-spectra';
import { codecReason } from './codec-decides';
import { levelAnalysis, pausesOf, type ClipPauses, type LevelAnalysis, type LevelOptions } from './level-analysis';
import { CLOSE_LOOK_S, silenceLines, type SilenceLines } from './silence-lines';
import { bitsOfEncoding, silenceNoise, type SilenceNoise } from './silence-noise';
import type { Segment } from './speech-segments';
import { clipReadings, type ClipReadings } from './stretch-reader';

/** What spectra and pauses of a clip come to. */
export interface SpectralFigures extends Omit<ClipSpectra, 'bandFrames' | 'frameLength'> {
  readonly noise: SilenceNoise | null;
  /** Close look at the silent part; null where there is none, or the clip could not be opened twice. */
  readonly lines: SilenceLines | null;
  /** How the sound was packed before it became samples; null for a recording that never was. */
  readonly sound: SoundCodec | null;
}

/** All that an analysis gives. */
export interface ClipAnalysis extends LevelAnalysis, ClipEvents, SpectralFigures {}

/** What is known of a clip beside its samples. */
export interface SpectralOptions {
  /** How the sound was packed before it became samples: a lossy codec decides what noise is left. */
  readonly sound?: SoundCodec | null;
  /** Opens the clip once more for the close look at the silent part. */
  readonly reopen?: () => SampleStream | Promise<SampleStream>;
}

/** Settings of an analysis. */
export interface AnalysisOptions extends LevelOptions, SpectralOptions {
  /** Measures the stretches of the clip, alone or with others. Without it they are measured here, one after the other. */
  readonly readings?: (stream: SampleStream) => Promise<ClipReadings>;
  /**
   * Asks somebody else for {@link spectralFigures} of these readings, meanwhile. Null, now or later, where nobody gives
   * them: they are reckoned here.
   */
  readonly spectral?: (channels: readonly DeepReadings[], pauses: ClipPauses) => Promise<SpectralFigures | null> | null;
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
  const { format } = stream;
  const readings = await (options.readings?.(stream) ?? clipReadings(stream, 'all', options.onProgress));
  const pauses = pausesOf(readings, format, options);
  const deep = readings.channels.map((c) => c.deep).filter((d) => d !== null);
  const elsewhere = options.spectral?.(deep, pauses);
  const level = levelAnalysis(readings, pauses);
  const events = eventsOf(deep, pauses.segments.speech, format.sampleRate);
  const spectral = (await elsewhere) ?? (await spectralFigures(deep, pauses, options));
  return { ...level, ...events, ...spectral };
}

/**
 * What spectra and pauses of a clip come to.
 *
 * @param channels - readings of the whole clip
 * @param pauses - of the same clip
 * @param options - what else is known of it
 */
export async function spectralFigures(
  channels: readonly DeepReadings[],
  pauses: ClipPauses,
  options: SpectralOptions,
): Promise<SpectralFigures> {
  const { bandFrames, frameLength, ...ofWhole } = spectraOf(channels, pauses.format.sampleRate);
  const { segments, framePowers, isZeroFrame } = pauses;
  const { sampleRate, encoding } = pauses.format;
  const bits = bitsOfEncoding(encoding);
  const found = silenceNoise({ bandFrames, frameLength, sampleRate, framePowers, isZeroFrame, bits }, segments.silence);
  const sound = options.sound ?? null;
  const packed = codecReason(sound);
  const noise = found && packed !== null ? { ...found, refused: packed } : found;
  const quiet = noise && noise.refused === null ? noise.segment : null;
  return {
    ...ofWhole,
    noise,
    sound,
    lines: packed !== null ? null : await closeLook(quiet ?? steadyWhole(pauses), sampleRate, options.reopen),
  };
}

/** A steady clip without speech or pause (noise at full gain, a motor) is looked at for lines as a whole. */
function steadyWhole({ segments, durationS }: ClipPauses): Segment | null {
  const { speech, silence, events } = segments;
  return speech.length + silence.length + events.length === 0 ? { startS: 0, endS: durationS } : null;
}

async function closeLook(
  pause: Segment | null,
  sampleRate: number,
  reopen: SpectralOptions['reopen'],
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
