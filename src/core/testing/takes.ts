import type { AnalysedTake } from '../gear/run/analysed-take';
import { clipMeasurements } from '../measure/clip-measurements';
import { analyse } from './signals';

/** A take of a run as the queue would hand it over, analysed from its samples. */
export async function analysedTake(
  role: string,
  samples: Float64Array,
  change: Partial<AnalysedTake> = {},
  sampleRate = 48_000,
): Promise<AnalysedTake> {
  const analysis = await analyse([samples], sampleRate);
  const { loudness, noise, stepPowers, segments, thirdOctave, loudest, aDbfs } = analysis;
  return {
    role,
    gainDb: 40,
    distanceM: null,
    angleDeg: null,
    levelDbSpl: null,
    levelDbu: null,
    windSpeedMs: null,
    loudness,
    noise,
    speechS: segments.speech.reduce((s, { startS, endS }) => s + endS - startS, 0),
    stepPowers,
    thirdOctave,
    loudest,
    aDbfs,
    clip: clipMeasurements(analysis),
    response: null,
    ...change,
  };
}
