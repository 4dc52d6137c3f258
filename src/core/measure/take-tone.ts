import type { AudioFormat } from '../audio/audio-format';
import { allocateBlock, type SampleStream } from '../audio/sample-stream';
import { powerToDb } from '../units';
import { distortionIn, type ToneDistortion } from './tone-distortion';
import { dynamicRangeIn, type DynamicRange } from './dynamic-range';
import { smpteIn, twinToneIn, type Intermodulation } from './intermodulation';
import {
  linePower,
  noiseBeside,
  strongestLine,
  TONE_FRAME,
  ToneSpectrumMeter,
  type ToneSpectrum,
} from './tone-spectrum';

/** A figure of a tone with its standard uncertainty: by how far the halves of the take differ; null for one too short. */
export interface ToneValue {
  readonly db: number;
  readonly u: number | null;
}

/** Everything that a take of steady tones tells, whichever they are. */
export interface TakeTone {
  /** Longer than two samples at the extreme: what it shows is the clipping. */
  readonly isClipped: boolean;
  readonly distortion: ToneDistortion;
  readonly thd: ToneValue;
  readonly thdPlusNoise: ToneValue;
  readonly range: DynamicRange;
  readonly rangeA: ToneValue;
  /** Null where no such tones are there. */
  readonly smpte: (Intermodulation & ToneValue) | null;
  readonly twinTone: (Intermodulation & ToneValue) | null;
  /** Level of the strongest tone of the loudest channel in each channel, AES17 dBFS, the noise beside it taken off. */
  readonly channelsDbfs: readonly number[];
  /** Whether the noise is as strong there: what is told is then no more than a limit. */
  readonly channelsInNoise: readonly boolean[];
}

/** Equal samples at the extreme, and how near to it they lie. */
const CLIPPED_RUN = 3;
const EXTREME = 0.9999;

/** Looks for equal samples at the extreme. */
class ClipDetector {
  isClipped = false;
  private run = 0;
  private before = 0;

  push(samples: Float64Array, count: number): void {
    for (let i = 0; i < count; i++) {
      const x = samples[i];
      const isExtreme = Math.abs(x) >= EXTREME && (this.run === 0 || x === this.before);
      this.run = isExtreme ? this.run + 1 : 0;
      this.before = x;
      if (this.run >= CLIPPED_RUN) this.isClipped = true;
    }
  }
}

/**
 * Reads a take of steady tones as it arrives: distortion, dynamic range and intermodulation of its loudest channel, and
 * the tone's level in each. Memory does not grow with the length.
 */
class ToneMeter {
  private readonly channels: readonly { readonly spectrum: ToneSpectrumMeter; readonly clips: ClipDetector }[];

  /** @param format - of the take, at least 65,536 frames */
  constructor(format: Pick<AudioFormat, 'channels' | 'sampleRate' | 'frames'>) {
    const { channels, sampleRate, frames } = format;
    this.channels = Array.from({ length: channels }, () => ({
      spectrum: new ToneSpectrumMeter(sampleRate, frames),
      clips: new ClipDetector(),
    }));
  }

  push(block: readonly Float64Array[], count: number): void {
    this.channels.forEach(({ spectrum, clips }, c) => {
      spectrum.push(block[c], count);
      clips.push(block[c], count);
    });
  }

  read(): TakeTone {
    const spectra = this.channels.map(({ spectrum }) => spectrum.spectra());
    const tops = spectra.map(({ whole }) => top(whole));
    const levels = spectra.map(({ whole }, c) => linePower(whole, tops[c]));
    const loudest = levels.indexOf(Math.max(...levels));
    const { whole, halves } = spectra[loudest];
    const hz = tops[loudest];
    const read = [whole, ...(halves ?? [])];
    const distortions = read.map(distortionIn);
    const ranges = read.map(dynamicRangeIn);
    const modulations = read.map(smpteIn);
    const differences = read.map(twinToneIn);
    const [smpte, twinTone] = [modulations[0], differences[0]];
    const lines = spectra.map((s) => ({ power: linePower(s.whole, hz), noise: noiseBeside(s.whole, hz) }));
    return {
      isClipped: this.channels[loudest].clips.isClipped,
      distortion: distortions[0],
      thd: valued(distortions.map((of) => of.thdDb)),
      thdPlusNoise: valued(distortions.map((of) => of.thdPlusNoiseDb)),
      range: ranges[0],
      rangeA: valued(ranges.map((of) => of.aDb)),
      smpte: smpte && { ...smpte, ...valued(modulations.map((of) => of?.db ?? NaN)) },
      twinTone: twinTone && { ...twinTone, ...valued(differences.map((of) => of?.db ?? NaN)) },
      channelsDbfs: lines.map(({ power, noise }) => powerToDb(2 * (power > 2 * noise ? power - noise : power))),
      channelsInNoise: lines.map(({ power, noise }) => power <= 2 * noise),
    };
  }
}

/** The strongest tone of a spectrum, hertz. */
const top = (spectrum: ToneSpectrum): number => strongestLine(spectrum, 20, spectrum.highHz) ?? NaN;

/** A figure of the whole, and of either half where there are two: they differ by √2 times what one of them is unsure by, and the whole is √2 surer than a half. */
const valued = ([db, ...halves]: readonly number[]): ToneValue => ({
  db,
  u: halves.length < 2 ? null : Math.abs(halves[0] - halves[1]) / 2,
});

/**
 * Reads a take of steady tones: distortion, dynamic range and intermodulation of its loudest channel, and the tone's
 * level in each. Memory does not grow with the length.
 *
 * @param stream - freshly opened; it is read to its end and not closed
 * @returns null where the take is shorter than 65,536 samples
 * @throws {@link AudioFileError} whatever reading throws
 */
export async function readToneOf(stream: SampleStream): Promise<TakeTone | null> {
  const { format } = stream;
  if (format.frames < TONE_FRAME) return null;
  const meter = new ToneMeter(format);
  const block = allocateBlock(format.channels);
  for (;;) {
    const next = stream.read(block);
    const count = typeof next === 'number' ? next : await next;
    if (count === 0) return meter.read();
    meter.push(block, count);
  }
}

/**
 * As {@link readToneOf}, of samples in memory.
 *
 * @param channels - equally long, at least 65,536 samples
 * @param sampleRate - in hertz
 * @returns null where the take is too short
 */
export function readTone(channels: readonly Float64Array[], sampleRate: number): TakeTone | null {
  const frames = channels[0].length;
  if (frames < TONE_FRAME) return null;
  const meter = new ToneMeter({ channels: channels.length, sampleRate, frames });
  meter.push(channels, frames);
  return meter.read();
}
