import { factorise } from './cholesky';
import type { WorthFit } from './fit-worths';
import type { ListenerScatter } from './listener-scatter';
import { fillStandardNormal } from './normal';
import { SeededWords } from './random';

/** How sure the worths are: their covariance, and draws from it. */
export interface WorthPosterior {
  readonly items: number;
  /** Of the log worths with mean zero, n × n row by row. */
  readonly covariance: Float64Array;
  /** Log worths drawn many times: one array per thing, as long as there are draws. */
  readonly draws: readonly Float64Array[];
}

/** Settings of the draws. */
export interface PosteriorOptions {
  /** 400 put a standard error of 1.5 % on a probability of 90 %. */
  readonly draws?: number;
  readonly seed?: string;
  /** What listeners' tastes and faded answers add to the scatter; without it, answers count as if each had its own listener. */
  readonly listeners?: ListenerScatter | null;
}

/**
 * Normal approximation around the fit (Laplace): the inverse of the negative Hessian, what the data say and the prior
 * where there is one. Tie parameter and covariates are integrated out. With listeners, the covariance is that of answers
 * which hang together by listener (see {@link ListenerScatter}).
 *
 * @param fit - converged
 * @param options - number of draws and their seed
 * @throws RangeError where the answers leave something open (no penalty, unconnected things)
 */
export function worthPosterior(fit: WorthFit, options: PosteriorOptions = {}): WorthPosterior {
  const n = fit.logWorth.length;
  const { size } = fit.likelihood;
  const a = fit.likelihood.dense();
  // Held at mean zero: adds nothing to any difference, and makes the matrix regular where no prior does.
  const hold = meanCurvature(a, size, n);
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) a[i * size + j] += hold;
  const factored = factorise(a, size);
  const inverse = factored?.inverse();
  // Rounding may leave a hair of curvature where there is none: a variance of a million then.
  if (!factored || !inverse || Array.from({ length: n }, (_, i) => inverse[i * size + i]).some((v) => !(v < 1e6)))
    throw new RangeError('The answers do not settle all worths: some things were never compared with the others.');
  const { listeners, draws = 400, seed = 'sediment' } = options;
  // The kernel keeps one matrix: what is drawn is drawn before the next one is factored.
  const colour = listeners
    ? colourOf(inverse, sum(a, listeners.extra), size)
    : (z: Float32Array, out: Float64Array): void => factored.colour(z, out);
  const all = listeners ? sandwich(inverse, listeners.extra, size) : inverse;
  const covariance = new Float64Array(n * n);
  for (let i = 0; i < n; i++) covariance.set(all.subarray(i * size, i * size + n), i * n);
  return { items: n, covariance: centred(covariance, n), draws: drawWorths(fit.logWorth, colour, size, draws, seed) };
}

const sum = (a: Float64Array, b: Float64Array): Float64Array => a.map((x, i) => x + b[i]);

/** H⁻¹ + H⁻¹·E·H⁻¹; rows of E that are empty cost nothing. */
function sandwich(inverse: Float64Array, extra: Float64Array, size: number): Float64Array {
  const half = new Float64Array(size * size);
  for (let k = 0; k < size; k++) {
    for (let j = 0; j < size; j++) {
      const e = extra[k * size + j];
      // Column j of E times row k of the inverse: symmetric, so rows serve as columns.
      if (e !== 0) for (let i = 0; i < size; i++) half[j * size + i] += inverse[k * size + i] * e;
    }
  }
  const out = inverse.slice();
  for (let i = 0; i < size; i++) {
    for (let k = 0; k < size; k++) {
      const h = half[k * size + i];
      if (h !== 0) for (let j = 0; j <= i; j++) out[i * size + j] += h * inverse[k * size + j];
    }
  }
  for (let i = 0; i < size; i++) for (let j = i + 1; j < size; j++) out[i * size + j] = out[j * size + i];
  return out;
}

/** Draws of covariance H⁻¹·M·H⁻¹: M times a draw of covariance M⁻¹ has covariance M. */
function colourOf(
  inverse: Float64Array,
  middle: Float64Array,
  size: number,
): (z: Float32Array, out: Float64Array) => void {
  const factored = factorise(middle, size);
  if (!factored) throw new RangeError('The scatter of the answers is not positive: weights must be positive.');
  const drawn = new Float64Array(size);
  const between = new Float64Array(size);
  const times = (matrix: Float64Array, from: Float64Array, into: Float64Array): void => {
    for (let i = 0; i < size; i++) {
      let s = 0;
      for (let j = 0; j < size; j++) s += matrix[i * size + j] * from[j];
      into[i] = s;
    }
  };
  return (z, out) => {
    factored.colour(z, drawn);
    times(middle, drawn, between);
    times(inverse, between, out);
  };
}

/** A shift of like size as the rest of the matrix, so that it stays well conditioned. */
function meanCurvature(a: Float64Array, size: number, n: number): number {
  let sum = 0;
  for (let i = 0; i < n; i++) sum += a[i * size + i];
  return n === 0 ? 0 : sum / n / n;
}

/** Covariance of x − mean(x) from that of x. */
function centred(covariance: Float64Array, n: number): Float64Array {
  const rows = new Float64Array(n);
  let all = 0;
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < n; j++) rows[i] += covariance[i * n + j];
    rows[i] /= n;
    all += rows[i] / n;
  }
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) covariance[i * n + j] += all - rows[i] - rows[j];
  return covariance;
}

function drawWorths(
  mean: Float64Array,
  colour: (z: Float32Array, out: Float64Array) => void,
  size: number,
  count: number,
  seed: string,
): Float64Array[] {
  const n = mean.length;
  const draws = Array.from({ length: n }, () => new Float64Array(count));
  const source = new SeededWords(seed);
  const z = new Float32Array(size);
  const scratch = new Uint32Array(size);
  const values = new Float64Array(size);
  for (let d = 0; d < count; d++) {
    fillStandardNormal(z, source, scratch);
    colour(z, values);
    let centre = 0;
    for (let i = 0; i < n; i++) centre += values[i] / n;
    for (let i = 0; i < n; i++) draws[i][d] = mean[i] + values[i] - centre;
  }
  return draws;
}

/** What one answer told of the difference between two things. */
export interface Told {
  readonly a: number;
  readonly b: number;
  /** Curvature that the answer added: its weight times the variance of the outcome. */
  readonly information: number;
}

/**
 * What an order tells of each two things in it: diag(p) − p pᵀ, the curvature of a choice, is the sum of
 * pᵢ pⱼ (eᵢ − eⱼ)(eᵢ − eⱼ)ᵀ. A pair is an order of two.
 *
 * @param logWorth - at the fit
 * @param items - best first
 * @param weight - of the answer
 */
export function toldByOrder(logWorth: Float64Array, items: readonly number[], weight = 1): Told[] {
  const told: Told[] = [];
  for (let stage = 0; stage < items.length - 1; stage++) {
    const left = items.slice(stage);
    const most = Math.max(...left.map((i) => logWorth[i]));
    const scaled = left.map((i) => Math.exp(logWorth[i] - most));
    const total = scaled.reduce((s, x) => s + x, 0);
    for (let i = 0; i < left.length; i++)
      for (let j = i + 1; j < left.length; j++)
        told.push({ a: left[i], b: left[j], information: (weight * scaled[i] * scaled[j]) / total ** 2 });
  }
  return told;
}

/**
 * Posterior after a few more answers, without another factorisation: the covariance by Sherman & Morrison's formula,
 * the draws by Potter's square-root update, both in the order of n². The slight change that the answers make to the
 * curvature of all the others is left out until the next whole fit.
 *
 * @param posterior - before; is not changed
 * @param before - log worths that it stands around
 * @param after - log worths of the new fit
 * @param told - see {@link toldByOrder}
 * @see Bierman, Factorization Methods for Discrete Sequential Estimation (1977), chapter II (Potter)
 */
export function updatedPosterior(
  posterior: WorthPosterior,
  before: Float64Array,
  after: Float64Array,
  told: readonly Told[],
): WorthPosterior {
  const n = posterior.items;
  const covariance = posterior.covariance.slice();
  const draws = posterior.draws.map((values, i) => values.map((x) => x - before[i]));
  const direction = new Float64Array(n);
  for (const { a, b, information } of told) {
    for (let i = 0; i < n; i++) direction[i] = covariance[i * n + a] - covariance[i * n + b];
    const variance = direction[a] - direction[b];
    if (!(variance > 0) || !(information > 0)) continue;
    const gain = information / (1 + information * variance);
    for (let i = 0; i < n; i++) {
      const factor = gain * direction[i];
      for (let j = 0; j < n; j++) covariance[i * n + j] -= factor * direction[j];
    }
    const pull = (1 - 1 / Math.sqrt(1 + information * variance)) / variance;
    const difference = draws[a].map((x, d) => x - draws[b][d]);
    for (let i = 0; i < n; i++) {
      const factor = pull * direction[i];
      const values = draws[i];
      for (let d = 0; d < values.length; d++) values[d] -= factor * difference[d];
    }
  }
  return { items: n, covariance, draws: draws.map((values, i) => values.map((x) => x + after[i])) };
}

/**
 * Standard errors of log worths against one of them.
 *
 * @param posterior - of the fit
 * @param reference - index of the zero line
 */
export function errorsAgainst(posterior: WorthPosterior, reference: number): Float64Array {
  const { covariance, items: n } = posterior;
  const at = (i: number, j: number): number => covariance[i * n + j];
  return Float64Array.from({ length: n }, (_, i) =>
    Math.sqrt(Math.max(0, at(i, i) + at(reference, reference) - 2 * at(i, reference))),
  );
}

/** Standard errors of log worths against the mean of all. */
export const standardErrors = ({ covariance, items: n }: WorthPosterior): Float64Array =>
  Float64Array.from({ length: n }, (_, i) => Math.sqrt(Math.max(0, covariance[i * n + i])));
