import type { SoundCodec } from '../audio/codec';
import { readStretch, type SampleStream } from '../audio/sample-stream';
import { codecReason } from './codec-decides';
import { EventMeter, eventsOf, type ClipEvents } from './event-meter';
import { levelPass, type LevelAnalysis, type LevelOptions } from './level-pass';
import { CLOSE_LOOK_S, silenceLines, type SilenceLines } from './silence-lines';
import { bitsOfEncoding, silenceNoise, type SilenceNoise } from './silence-noise';
import { SpectralMeter, spectraOf, type ClipSpectra } from './spectral-pass';
import type { Segment } from './speech-segments';

/** All that an analysis gives. */
export interface ClipAnalysis extends LevelAnalysis, ClipEvents, Omit<ClipSpectra, 'bandFrames' | 'frameLength'> {
  readonly noise: SilenceNoise | null;
  /** Close look at the silent part; null where there is none, or the clip could not be opened twice. */
  readonly lines: SilenceLines | null;
  /** How the sound was packed before it became samples; null for a recording that never was. */
  readonly sound: SoundCodec | null;
}

/** Settings of an analysis. */
export interface AnalysisOptions extends LevelOptions {
  /** How the sound was packed before it became samples: a lossy codec decides what noise is left. */
  readonly sound?: SoundCodec | null;
  /** Opens the clip once more for the close look at the silent part. */
  readonly reopen?: () => SampleStream | Promise<SampleStream>;
  /** Spectra of the same clip that another thread takes meanwhile ({@link spectralPass}); without, they are taken here. */
  readonly spectra?: Promise<ClipSpectra> | null;
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
  const events: EventMeter[] = [];
  const here: SpectralMeter[] = [];
  const levels = levelPass(stream, options, {
    room: EventMeter.room(sampleRate) + (options.spectra ? 0 : SpectralMeter.room(sampleRate)),
    past: options.spectra ? 0 : SpectralMeter.past(sampleRate),
    of: (block) => {
      const meter = new EventMeter(sampleRate, block);
      events.push(meter);
      if (options.spectra) return [meter];
      const spectral = new SpectralMeter(sampleRate, block);
      here.push(spectral);
      return [meter, spectral];
    },
  }).then((level) => ({ level, events: eventsOf(events, level.segments.speech, sampleRate) }));
  const [first, elsewhere] = await Promise.all([levels, options.spectra]);
  const spectra = elsewhere ?? spectraOf(here, sampleRate);
  return completeAnalysis(first.level, first.events, spectra, options);
}

async function completeAnalysis(
  level: LevelAnalysis,
  events: ClipEvents,
  spectra: ClipSpectra,
  options: AnalysisOptions,
): Promise<ClipAnalysis> {
  const { bandFrames, frameLength, ...ofWhole } = spectra;
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
    ...events,
    ...ofWhole,
    noise,
    sound,
    lines: packed !== null ? null : await closeLook(quiet ?? steadyWhole(level), sampleRate, options.reopen),
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
