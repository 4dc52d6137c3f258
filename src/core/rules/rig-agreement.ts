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
  /** What the offset may be before the figure counts as off: set for all figures of the day together. */
  readonly limit: number | null;
  /** A shift of this size would be found with a probability of 80 %. */
  readonly found80: number | null;
  readonly count: number;
}

/** What is expected of a figure before its history tells it. */
export interface AgreementSetting {
  /** Deviation between sessions that is expected, in the unit of the figure; null where nothing is known beforehand. */
  readonly expected: number | null;
  /** How many figures of the day are judged together. */
  readonly figures: number;
  /** Probability of calling a rig off that is not, over all figures of the day. */
  readonly falseAlarms?: number;
}

/** A figure of the control unit scatters at least by this much, in its unit; common practice for decibels, no source. */
const LEAST_SPREAD = 0.1;
/** An expected deviation counts like so many sessions of history. */
const EXPECTED_SESSIONS = 10;
const FALSE_ALARMS = 0.05;
const POWER = 0.8;

/**
 * Share of false alarms that one of several figures may have so that all together have no more than asked for
 * (Šidák 1967: exact for independent figures, on the safe side for those that hang together).
 *
 * @param together - of the whole verdict
 * @param figures - how many
 */
export const shareOfOne = (together: number, figures: number): number =>
  1 - (1 - together) ** (1 / Math.max(1, figures));

/**
 * Compares today's figure of the control unit with those of earlier sessions: it agrees where it lies within the
 * prediction interval for one further observation, mean ± t·√(s²·(1 + 1/n)) (Hahn & Meeker, Statistical Intervals,
 * chapter 4, from memory). s² is that of the history together with what is expected of such a figure beforehand, each
 * by its degrees of freedom, and at least what the figures' own uncertainties say: two sessions that happen to agree
 * must not condemn the third. The interval is that of one of several figures, so that the verdict over all of them
 * has the chosen share of false alarms.
 *
 * @param history - earlier figures of the same quantity under the same conditions
 * @param today - the new one
 * @param setting - what is expected, and how many figures are judged together
 */
export function agreement(
  history: readonly ControlFigure[],
  today: ControlFigure,
  setting: AgreementSetting = { expected: null, figures: 1 },
): Agreement {
  const count = history.length;
  const none = { usual: null, offset: null, offsetUncertainty: null, spread: null, limit: null, found80: null };
  if (count === 0) return { verdict: 'no-history', today: today.value, ...none, count };
  const values = history.map((h) => h.value);
  const usual = mean(values);
  const scatter = count < 2 ? null : standardDeviation(values);
  const own = [...history, today].map((f) => f.uncertainty ?? 0);
  const typical = Math.sqrt(own.reduce((s, u) => s + u ** 2, 0) / own.length);
  const { spread, degrees } = spreadOf(scatter, count, typical, setting.expected);
  const offsetUncertainty = spread * Math.sqrt(1 + 1 / count);
  const tail = shareOfOne(setting.falseAlarms ?? FALSE_ALARMS, setting.figures) / 2;
  const limit = studentQuantile(1 - tail, degrees) * offsetUncertainty;
  const offset = today.value - usual;
  return {
    verdict: Math.abs(offset) <= limit ? 'agrees' : 'off',
    today: today.value,
    usual,
    offset,
    offsetUncertainty,
    spread: scatter,
    limit,
    found80: limit + studentQuantile(POWER, degrees) * offsetUncertainty,
    count,
  };
}

/** Deviation between sessions, and the degrees of freedom that it stands on. */
function spreadOf(
  scatter: number | null,
  count: number,
  typical: number,
  expected: number | null,
): { readonly spread: number; readonly degrees: number } {
  const least = Math.max(typical, LEAST_SPREAD);
  if (expected === null) {
    // Where the figures' own uncertainties explain the scatter, they say more of it than a handful of sessions can.
    return scatter === null || scatter <= typical
      ? { spread: Math.max(scatter ?? 0, least), degrees: KNOWN_DEGREES }
      : { spread: Math.max(scatter, least), degrees: count - 1 };
  }
  const prior = Math.hypot(expected, typical);
  const degrees = EXPECTED_SESSIONS + count - 1;
  const variance = (EXPECTED_SESSIONS * prior ** 2 + (count - 1) * (scatter ?? 0) ** 2) / degrees;
  return { spread: Math.max(Math.sqrt(variance), least), degrees };
}

/** Stands for a deviation that is known rather than estimated: t is then within 0.1 % of the normal distribution's. */
const KNOWN_DEGREES = 1000;

/**
 * A figure of another unit with the rig's offset taken off, and the uncertainty that this brings (root sum of squares,
 * JCGM 100:2008 5.1.2).
 */
export function corrected(figure: ControlFigure, { offset, offsetUncertainty }: Agreement): ControlFigure | null {
  if (offset === null || offsetUncertainty === null) return null;
  return { value: figure.value - offset, uncertainty: Math.hypot(figure.uncertainty ?? 0, offsetUncertainty) };
}
