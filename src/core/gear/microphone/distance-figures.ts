import type { Rung } from '../../measure/distance-ladder';
import { gatedLoudness } from '../../measure/integrated-loudness';
import type { Measurement } from '../../measure/measurement';
import { proximityEffect } from '../../measure/proximity';
import type { BandLevel } from '../../measure/third-octave-spectrum';
import { mean } from '../../stats/moments';
import { powerToDb } from '../../units';
import type { AnalysedTake } from '../run/analysed-take';
import { gained, isRefused, type GainedTake } from '../run/gained-take';

/** What stands less above the noise gives no level of its own. */
const LEAST_ABOVE_NOISE_DB = 3;
/** Distance that "close" is compared with, and what a take without a noted one is taken to have. */
const USUAL_DISTANCE_M = 0.15;
const CLOSE_DISTANCE_M = 0.03;

/** The short line at the usual distance: the very close take says the same words, which the passage does not. */
export function normalDistance(takes: readonly AnalysedTake[]): AnalysedTake | undefined {
  const usual = (t: AnalysedTake): number => Math.abs(Math.log((t.distanceM ?? NaN) / USUAL_DISTANCE_M));
  return takes
    .filter((t) => t.role === 'distance' && usual(t) < Math.LN2)
    .reduce<AnalysedTake | undefined>((best, t) => (best && usual(best) <= usual(t) ? best : t), undefined);
}

/** Bass of the very close take re that of the usual distance: of no gain, but for the noise that is taken off both. */
export function proximityFigure(
  close: AnalysedTake,
  normal: AnalysedTake,
  silence: AnalysedTake | undefined,
): Measurement {
  const noiseAt = (take: AnalysedTake): BandLevel[] => {
    const both = silence ? gained(take, silence) : null;
    if (!both || isRefused(both)) return [];
    return (silence?.noise?.thirdOctave ?? []).map((b) => ({
      ...b,
      levelDbfs: b.levelDbfs === null ? null : b.levelDbfs + both[0].gainDb - both[1].gainDb,
    }));
  };
  const take = (t: AnalysedTake, fallbackM: number) => ({
    distanceM: t.distanceM ?? fallbackM,
    thirdOctave: t.thirdOctave,
    speechS: t.speechS,
    noise: noiseAt(t),
  });
  return proximityEffect(take(close, CLOSE_DISTANCE_M), take(normal, USUAL_DISTANCE_M));
}

/** Takes of the counting line at noted distances. */
export const ladderTakes = (takes: readonly AnalysedTake[]): AnalysedTake[] =>
  takes.filter((t) => t.distanceM !== null && t.role === 'distance' && t.speechS > 0);

/** Levels of speech by distance at equal gain. */
export function distanceLadder(rungs: readonly GainedTake[], silence: GainedTake | undefined): Rung[] {
  return rungs.flatMap((take) => {
    const noise = silence?.stepPowers.length
      ? mean(silence.stepPowers) * 10 ** ((take.gainDb - silence.gainDb) / 10)
      : 0;
    const { power } = gatedLoudness(take.stepPowers, noise);
    const isClear = power > 0 && powerToDb(power / noise) >= LEAST_ABOVE_NOISE_DB;
    return isClear ? [{ distanceM: take.distanceM ?? 0, db: powerToDb(power) - take.gainDb }] : [];
  });
}
