import { mean } from './moments';
import { fillStandardNormal } from './normal';
import { SeededWords } from './random';
import type { WorthPosterior } from './worth-posterior';

/** What something else than answers says of a worth. */
export interface WorthHint {
  readonly logWorth: number;
  /** Standard deviation of that. */
  readonly sd: number;
}

/** Fewer units show no relation that could be believed. */
const LEAST_UNITS = 6;
/** However well figures went with worths so far: a hint is never surer than this (common practice, no source). */
const LEAST_SD = 0.8;

/**
 * Hint at a unit's worth from its measured points: a straight line through the points and log worths of all others
 * (least squares), with the deviation of a further unit about it.
 *
 * @param logWorth - of all
 * @param points - measured points of all; null where there are none
 * @param unit - whose hint it is
 * @returns null where the unit has no points, or too few others have
 */
export function hintFromPoints(
  logWorth: ArrayLike<number>,
  points: readonly (number | null)[],
  unit: number,
): WorthHint | null {
  const own = points[unit] ?? null;
  const others = points.flatMap((x, i) => (x === null || i === unit ? [] : [{ x, y: logWorth[i] }]));
  if (own === null || others.length < LEAST_UNITS) return null;
  const [mx, my] = [mean(others.map((o) => o.x)), mean(others.map((o) => o.y))];
  const squares = others.reduce((s, o) => s + (o.x - mx) ** 2, 0);
  const slope = squares === 0 ? 0 : others.reduce((s, o) => s + (o.x - mx) * (o.y - my), 0) / squares;
  const rest = others.reduce((s, o) => s + (o.y - my - slope * (o.x - mx)) ** 2, 0) / (others.length - 2);
  const reach = 1 + 1 / others.length + (squares === 0 ? 0 : (own - mx) ** 2 / squares);
  return { logWorth: my + slope * (own - mx), sd: Math.max(LEAST_SD, Math.sqrt(rest * reach)) };
}

/**
 * Worths and posterior with a hint taken in: one observation of one worth (the update of Kalman 1960; draws with the
 * observation drawn anew for each, Evensen 1994).
 *
 * @param logWorth - before
 * @param posterior - before; is not changed
 * @param unit - whose worth it is
 * @param hint - what was observed
 */
export function withHint(
  logWorth: Float64Array,
  posterior: WorthPosterior,
  unit: number,
  hint: WorthHint,
): { readonly logWorth: Float64Array; readonly posterior: WorthPosterior } {
  const { items: n, covariance } = posterior;
  const own = Float64Array.from({ length: n }, (_, i) => covariance[i * n + unit]);
  const gain = own.map((c) => c / (own[unit] + hint.sd ** 2));
  const count = posterior.draws[unit].length;
  const noise = new Float32Array(count);
  fillStandardNormal(noise, new SeededWords('hint'), new Uint32Array(count));
  const missed = posterior.draws[unit].map((x, d) => hint.logWorth + hint.sd * noise[d] - x);
  return {
    logWorth: logWorth.map((x, i) => x + gain[i] * (hint.logWorth - logWorth[unit])),
    posterior: {
      items: n,
      covariance: covariance.map((c, at) => c - gain[Math.floor(at / n)] * own[at % n]),
      draws: posterior.draws.map((values, i) => values.map((x, d) => x + gain[i] * missed[d])),
    },
  };
}
