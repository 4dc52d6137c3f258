import { A_TOTAL, VALUES_PER_FRAME, Z_TOTAL } from '../dsp/band-power-frames';
import { standardDeviation } from '../stats/moments';
import { meanSquareToDbfs, type Dbfs } from '../units';
import { measured, notMeasured, type Measurement, type Spread } from './measurement';
import type { QuantityId } from './registry';
import type { Segment } from './speech-segments';
import { meanOverFrames, thirdOctaveSpectrum, type BandLevel } from './third-octave-spectrum';

/** Variance of a mean over Hann frames at 50 % overlap, re independent frames (Welch 1967: 1 + 2·(1/6)²). */
const OVERLAP_VARIANCE = 1 + 2 / 36;

/** One reading of the noise with its scatter. */
export interface NoiseLevel {
  /** AES17 RMS; −∞ for digital silence. */
  readonly levelDbfs: Dbfs;
  readonly spread: Spread | null;
  /** Standard uncertainty of the mean, in dB. */
  readonly uncertaintyDb: number | null;
}

/** Noise in the longest pause of a clip. */
export interface SilenceNoise {
  readonly segment: Segment;
  readonly z: NoiseLevel;
  readonly a: NoiseLevel;
  readonly thirdOctave: readonly BandLevel[];
}

/**
 * RMS level of a pause, unweighted and A-weighted, 20 Hz–20 kHz, from the Welch frames that lie wholly in it.
 *
 * @param bandFrames - VALUES_PER_FRAME numbers per frame
 * @param frameLength - samples per frame; frames follow at half of that
 * @param sampleRate - in hertz
 * @param segment - the pause, or null
 * @returns null where there is no pause or no frame fits into it
 */
export function silenceNoise(
  bandFrames: Float64Array,
  frameLength: number,
  sampleRate: number,
  segment: Segment | null,
): SilenceNoise | null {
  if (!segment) return null;
  const hop = frameLength / 2;
  const available = bandFrames.length / VALUES_PER_FRAME;
  const from = Math.ceil((segment.startS * sampleRate) / hop - 1e-9);
  const to = Math.min(available, Math.floor((segment.endS * sampleRate - frameLength) / hop + 1e-9) + 1);
  if (to <= from) return null;
  return {
    segment,
    z: noiseLevel(bandFrames, Z_TOTAL, from, to, frameLength / sampleRate),
    a: noiseLevel(bandFrames, A_TOTAL, from, to, frameLength / sampleRate),
    thirdOctave: thirdOctaveSpectrum(bandFrames, from, to),
  };
}

function noiseLevel(bandFrames: Float64Array, value: number, from: number, to: number, frameS: number): NoiseLevel {
  const levelDbfs = meanSquareToDbfs(meanOverFrames(bandFrames, value, from, to));
  const levels: number[] = [];
  for (let f = from; f < to; f++) levels.push(meanSquareToDbfs(bandFrames[f * VALUES_PER_FRAME + value]));
  const usable = levels.length >= 2 && levels.every(Number.isFinite);
  if (!usable) return { levelDbfs, spread: null, uncertaintyDb: null };
  const sd = standardDeviation(levels);
  return {
    levelDbfs,
    spread: { sd, count: levels.length, of: `frames of ${Math.round(1000 * frameS)} ms at 50 % overlap` },
    uncertaintyDb: sd * Math.sqrt(OVERLAP_VARIANCE / levels.length),
  };
}

/** The figures as measurements with their conditions. */
export function silenceMeasurements(noise: SilenceNoise | null): Measurement[] {
  return (['z', 'a'] as const).map((weighting) => {
    const id: QuantityId = weighting === 'z' ? 'silenceRmsZ' : 'silenceRmsA';
    const condition = `${weighting === 'z' ? 'unweighted' : 'A-weighted'}, 20 Hz–20 kHz, longest pause`;
    if (!noise) return notMeasured(id, condition, 'The clip holds no pause of at least 0.5 s.');
    const level = noise[weighting];
    if (!Number.isFinite(level.levelDbfs)) return notMeasured(id, condition, 'The pause is digital silence.');
    return measured(id, level.levelDbfs, condition, {
      spread: level.spread,
      uncertainty: level.uncertaintyDb,
      settings: { startS: noise.segment.startS, endS: noise.segment.endS },
    });
  });
}
