import { powerToDb } from '../units';
import { measured, notMeasured, type Measurement } from './measurement';

/** One rung: level of the same sound at a distance, noise taken off, equal gain. */
export interface Rung {
  readonly distanceM: number;
  readonly db: number;
}

/** Direct sound that falls by 6 dB per doubling, plus a reverberant level that does not. */
export interface DistanceFit {
  /** Direct level at 1 m. */
  readonly directDb: number;
  /** Reverberant level; −∞ where the ladder shows none. */
  readonly reverberantDb: number;
  /** Where both are equal; null where the ladder shows no reverberation. */
  readonly criticalM: number | null;
  /** Root mean square of what the fit leaves, in dB. */
  readonly residualDb: number;
}

/** Direct-to-reverberant ratio up to which speech is called close (common practice, no source). */
export const USABLE_RATIO_DB = 6;
/** A critical distance beyond this many times the longest rung cannot be told from none. */
const LONGEST_REACH = 4;

/** Level that a fit predicts at a distance, in dB. */
export const ladderDb = (fit: DistanceFit, distanceM: number): number =>
  powerToDb(10 ** (fit.directDb / 10) / distanceM ** 2 + 10 ** (fit.reverberantDb / 10));

/** Distance at which the direct sound is `ratioDb` above the reverberant. */
export const distanceForRatio = (criticalM: number, ratioDb: number): number => criticalM * 10 ** (-ratioDb / 20);

/**
 * Least-squares fit in dB of A/r² + B to a distance ladder.
 *
 * @param rungs - three or more distances
 * @returns null for fewer than three different distances
 */
export function fitDistanceLadder(rungs: readonly Rung[]): DistanceFit | null {
  if (new Set(rungs.map((r) => r.distanceM)).size < 3) return null;
  const longest = Math.max(...rungs.map((r) => r.distanceM));
  // For a given critical distance the level follows as a mean: one dimension is left to search.
  const fitAt = (criticalM: number): DistanceFit => {
    const shape = (r: number): number => powerToDb(1 / r ** 2 + (criticalM === Infinity ? 0 : 1 / criticalM ** 2));
    const rest = rungs.map((r) => r.db - shape(r.distanceM));
    const directDb = rest.reduce((s, v) => s + v, 0) / rest.length;
    const residualDb = Math.sqrt(rest.reduce((s, v) => s + (v - directDb) ** 2, 0) / rest.length);
    const isInfinite = criticalM === Infinity;
    return {
      directDb,
      reverberantDb: isInfinite ? -Infinity : directDb - 20 * Math.log10(criticalM),
      criticalM: isInfinite ? null : criticalM,
      residualDb,
    };
  };
  let best = fitAt(Infinity);
  for (let critical = 0.02; critical <= LONGEST_REACH * longest; critical *= 1.005) {
    const fit = fitAt(critical);
    if (fit.residualDb < best.residualDb - 1e-9) best = fit;
  }
  return best;
}

/** The figures with their conditions. */
export function distanceMeasurements(rungs: readonly Rung[]): Measurement[] {
  const distances = [...new Set(rungs.map((r) => r.distanceM))].sort((a, b) => a - b);
  const condition = `speech at ${distances.map((d) => d.toFixed(2)).join(', ')} m, noise-corrected, this room`;
  const fit = fitDistanceLadder(rungs);
  if (!fit) {
    const reason = 'The run has speech from fewer than three distances.';
    return [notMeasured('criticalDistance', condition, reason), notMeasured('usableDistance', condition, reason)];
  }
  const settings = { residualDb: fit.residualDb, rungs: rungs.length };
  const longest = Math.max(...distances);
  if (fit.criticalM === null) {
    return [
      measured('criticalDistance', longest, condition, { bound: 'at-least', settings }),
      measured('usableDistance', distanceForRatio(longest, USABLE_RATIO_DB), condition, {
        bound: 'at-least',
        settings,
      }),
    ];
  }
  const usable = distanceForRatio(fit.criticalM, USABLE_RATIO_DB);
  return [
    measured('criticalDistance', fit.criticalM, condition, { settings }),
    measured('usableDistance', usable, condition, { settings: { ...settings, ratioDb: USABLE_RATIO_DB } }),
  ];
}
