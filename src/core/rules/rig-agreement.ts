import { mean, standardDeviation } from '../stats/moments';
import { studentQuantile } from '../stats/student-t';

/** A figure of the control unit. */
export interface ControlFigure {
  readonly value: number;
  readonly uncertainty: number | null;
}

/** How today's figure of the control unit stands to its history. */
export interface Agreement {
  readonly verdict: 'agrees' | 'off' | 'no-history';
  readonly today: number;
  /** Mean of the history; null without one. */
  readonly usual: number | null;
  /** today − usual. */
  readonly offset: number | null;
  /** Standard uncertainty of the offset. */
  readonly offsetUncertainty: number | null;
  /** Standard deviation of the history; null for fewer than two. */
  readonly spread: number | null;
  /** Half the width of the 95 % prediction interval for one more figure. */
  readonly limit: number | null;
  readonly count: number;
}

/** A figure of the control unit scatters at least by this much, in its unit; common practice for decibels, no source. */
const LEAST_SPREAD = 0.1;
const PROBABILITY = 0.975;
/** Two standard uncertainties (JCGM 100:2008 6.3.3), where the uncertainties are known rather than estimated from few. */
const COVERAGE = 2;

/**
 * Compares today's figure of the control unit with those of earlier sessions: it agrees where it lies within the 95 %
 * prediction interval for one further observation, mean ± t·√(s²·(1 + 1/n)) (NIST/SEMATECH e-Handbook, 7.2.2 and
 * Hahn & Meeker's prediction interval for one future observation), where s is at least what the figures' own
 * uncertainties say.
 *
 * @param history - earlier figures of the same quantity under the same conditions
 * @param today - the new one
 */
export function agreement(history: readonly ControlFigure[], today: ControlFigure): Agreement {
  const count = history.length;
  const none = { usual: null, offset: null, offsetUncertainty: null, spread: null, limit: null };
  if (count === 0) return { verdict: 'no-history', today: today.value, ...none, count };
  const values = history.map((h) => h.value);
  const usual = mean(values);
  const scatter = count < 2 ? null : standardDeviation(values);
  const own = [...history, today].map((f) => f.uncertainty ?? 0);
  const typical = Math.sqrt(own.reduce((s, u) => s + u ** 2, 0) / own.length);
  const spread = Math.max(scatter ?? 0, typical, LEAST_SPREAD);
  const offsetUncertainty = spread * Math.sqrt(1 + 1 / count);
  // Where the figures' own uncertainties explain the scatter, they say more of it than a handful of sessions can.
  const coverage = scatter === null || scatter <= typical ? COVERAGE : studentQuantile(PROBABILITY, count - 1);
  const limit = coverage * offsetUncertainty;
  const offset = today.value - usual;
  return {
    verdict: Math.abs(offset) <= limit ? 'agrees' : 'off',
    today: today.value,
    usual,
    offset,
    offsetUncertainty,
    spread: scatter,
    limit,
    count,
  };
}

/**
 * A figure of another unit with the rig's offset taken off, and the uncertainty that this brings (root sum of squares,
 * JCGM 100:2008 5.1.2).
 */
export function corrected(figure: ControlFigure, { offset, offsetUncertainty }: Agreement): ControlFigure | null {
  if (offset === null || offsetUncertainty === null) return null;
  return { value: figure.value - offset, uncertainty: Math.hypot(figure.uncertainty ?? 0, offsetUncertainty) };
}
