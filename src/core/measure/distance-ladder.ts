import { studentQuantile } from '../stats/student-t';
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
  /** Limits of the critical distance at 95 %; the upper one null where the ladder leaves it open. */
  readonly critical95: readonly [number, number | null];
  /** Root mean square of what the fit leaves, in dB. */
  readonly residualDb: number;
}

/** Direct-to-reverberant ratio up to which speech is called close (common practice, no source). */
export const USABLE_RATIO_DB = 6;
/** A critical distance beyond this many times the longest rung cannot be told from none. */
const LONGEST_REACH = 4;

/** Level that a fit predicts at a distance, in dB. */
export const ladderDb = (fit: Pick<DistanceFit, 'directDb' | 'reverberantDb'>, distanceM: number): number =>
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
  const fitAt = (criticalM: number): Omit<DistanceFit, 'critical95'> => {
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
  const tried = [fitAt(Infinity)];
  for (let critical = 0.02; critical <= LONGEST_REACH * longest; critical *= 1.005) tried.push(fitAt(critical));
  const best = tried.reduce((a, b) => (b.residualDb < a.residualDb - 1e-9 ? b : a));
  return { ...best, critical95: profile(tried, best, rungs.length) };
}

/**
 * Interval of the critical distance by the profile of the squares: those distances at which the fit is no worse than
 * Student's t allows (Venzon & Moolgavkar 1988 for the profile, Draper & Smith for the sum of squares). The scatter of a
 * rung is what the fit leaves, and at least what one reading of a line differs from the next.
 */
function profile(
  tried: readonly Omit<DistanceFit, 'critical95'>[],
  best: Omit<DistanceFit, 'critical95'>,
  count: number,
): readonly [number, number | null] {
  const free = Math.max(1, count - 2);
  const own = (best.residualDb ** 2 * count) / free;
  // Scatter that is known beforehand counts like this many rungs more.
  const variance = (own * free + READING_DB ** 2 * PRIOR_RUNGS) / (free + PRIOR_RUNGS);
  const t = studentQuantile(0.975, free + PRIOR_RUNGS);
  const allowed = best.residualDb ** 2 * count + t ** 2 * variance;
  const inside = tried.filter((f) => f.residualDb ** 2 * count <= allowed);
  const distances = inside.flatMap((f) => f.criticalM ?? []);
  const isOpen = inside.some((f) => f.criticalM === null) || distances.length === 0;
  const longest = Math.max(...tried.flatMap((f) => f.criticalM ?? []));
  const [least, most] = [Math.min(...distances, longest), Math.max(...distances)];
  return [least, isOpen || most >= longest / 1.006 ? null : most];
}

/** Levels of one line read twice differ by this much (standard deviation; common practice, no source). */
const READING_DB = 0.7;
const PRIOR_RUNGS = 4;

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
  const [least, most] = fit.critical95;
  if (fit.criticalM === null || most === null) {
    const open = { bound: 'at-least', settings } as const;
    return [
      measured('criticalDistance', least, condition, open),
      measured('usableDistance', distanceForRatio(least, USABLE_RATIO_DB), condition, open),
    ];
  }
  // Half of the interval's half: the interval is one of 95 %, the uncertainty one deviation.
  const u = (most - least) / 4;
  const usable = distanceForRatio(fit.criticalM, USABLE_RATIO_DB);
  const limits = { ...settings, leastM: least, mostM: most };
  return [
    measured('criticalDistance', fit.criticalM, condition, { uncertainty: u, settings: limits }),
    measured('usableDistance', usable, condition, {
      uncertainty: distanceForRatio(u, USABLE_RATIO_DB),
      settings: { ...limits, ratioDb: USABLE_RATIO_DB },
    }),
  ];
}
