import { powerToDb } from '../units';
import { distortionIn, type ToneDistortion } from './tone-distortion';
import { dynamicRangeIn, type DynamicRange } from './dynamic-range';
import { smpteIn, twinToneIn, type Intermodulation } from './intermodulation';
import { linePower, noiseBeside, strongestLine, TONE_FRAME, toneSpectrum, type ToneSpectrum } from './tone-spectrum';

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

/**
 * Reads a take of steady tones: distortion, dynamic range and intermodulation of its loudest channel, and the tone's
 * level in each.
 *
 * @param channels - equally long, at least 65,536 samples
 * @param sampleRate - in hertz
 * @returns null where the take is too short
 */
export function readTone(channels: readonly Float64Array[], sampleRate: number): TakeTone | null {
  if (channels[0].length < TONE_FRAME) return null;
  const spectra = channels.map((samples) => toneSpectrum(samples, sampleRate));
  const top = (spectrum: ToneSpectrum): number => strongestLine(spectrum, 20, spectrum.highHz) ?? NaN;
  const levels = spectra.map((s) => linePower(s, top(s)));
  const loudest = levels.indexOf(Math.max(...levels));
  const [samples, spectrum] = [channels[loudest], spectra[loudest]];
  const half = Math.floor(samples.length / 2);
  const halves =
    half < TONE_FRAME
      ? null
      : [samples.subarray(0, half), samples.subarray(samples.length - half)].map((s) => toneSpectrum(s, sampleRate));
  const valued = (read: (of: ToneSpectrum) => number): ToneValue => ({
    db: read(spectrum),
    // Two halves: their difference is √2 times as unsure as one of them, and the whole √2 surer than a half.
    u: halves && Math.abs(read(halves[0]) - read(halves[1])) / 2,
  });
  const [smpte, twinTone] = [smpteIn(spectrum), twinToneIn(spectrum)];
  const hz = top(spectrum);
  const lines = spectra.map((s) => ({ power: linePower(s, hz), noise: noiseBeside(s, hz) }));
  return {
    isClipped: clips(samples),
    distortion: distortionIn(spectrum),
    thd: valued((of) => distortionIn(of).thdDb),
    thdPlusNoise: valued((of) => distortionIn(of).thdPlusNoiseDb),
    range: dynamicRangeIn(spectrum),
    rangeA: valued((of) => dynamicRangeIn(of).aDb),
    smpte: smpte && { ...smpte, ...valued((of) => smpteIn(of)?.db ?? NaN) },
    twinTone: twinTone && { ...twinTone, ...valued((of) => twinToneIn(of)?.db ?? NaN) },
    channelsDbfs: lines.map(({ power, noise }) => powerToDb(2 * (power > 2 * noise ? power - noise : power))),
    channelsInNoise: lines.map(({ power, noise }) => power <= 2 * noise),
  };
}

function clips(samples: Float64Array): boolean {
  let run = 0;
  for (let i = 0; i < samples.length; i++) {
    const isExtreme = Math.abs(samples[i]) >= EXTREME && (run === 0 || samples[i] === samples[i - 1]);
    run = isExtreme ? run + 1 : 0;
    if (run >= CLIPPED_RUN) return true;
  }
  return false;
}
