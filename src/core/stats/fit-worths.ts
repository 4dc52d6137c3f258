import type { AnswerTable } from './comparison-answers';
import { WorthLikelihood, type WorthPenalty } from './worth-likelihood';

/** A normal prior of standard deviation 2 on each log worth: the best of a hundred then beats the middle one 99 times in 100. */
export const USUAL_PENALTY: WorthPenalty = { worth: 0.25, others: 0.01 };
/** Plain maximum likelihood. */
export const NO_PENALTY: WorthPenalty = { worth: 0, others: 0 };

/** What answers say of the things compared. */
export interface WorthFit {
  /** Log worth of each, mean zero. */
  readonly logWorth: Float64Array;
  /** Davidson's ν; 0 where no tie was answered. */
  readonly tie: number;
  readonly covariates: Float64Array;
  readonly logLikelihood: number;
  /** Newton steps. */
  readonly iterations: number;
  readonly isConverged: boolean;
  /** At the solution: makes the covariance. */
  readonly likelihood: WorthLikelihood;
  /** All parameters, to start the next fit from. */
  readonly parameters: Float64Array;
}

const MOST_STEPS = 60;
/** A step that gains less in log likelihood is the last one: what is left after it goes with the square of it. */
const ENOUGH = 1e-7;

/**
 * Fits worths to answers by Newton's method, each step solved by conjugate gradients on the sparse Hessian, so that
 * the cost follows the answers and not the square of the units. Starting near the solution takes a step or two.
 *
 * @param answers - pairs and orders
 * @param penalty - see {@link USUAL_PENALTY}; without one the maximum must exist (see {@link maximumExists})
 * @param start - parameters of an earlier fit of the same things, or null
 * @param covariance - of the log worths of that fit (items × items): with it the first step, after one more answer, is
 *   a product instead of a solution
 */
export function fitWorths(
  answers: AnswerTable,
  penalty: WorthPenalty = USUAL_PENALTY,
  start: Float64Array | null = null,
  covariance: Float64Array | null = null,
): WorthFit {
  const withTies = answers.hasTies;
  const likelihood = new WorthLikelihood(answers, penalty, withTies);
  let at = startingPoint(likelihood, answers.items, start);
  let iterations = 0;
  let isConverged = false;
  likelihood.evaluate(at);
  if (covariance) at = shortcut(likelihood, at, answers.items, covariance);
  const solver = new ConjugateGradients(likelihood, answers.items, penalty.worth === 0);
  while (iterations < MOST_STEPS) {
    const gradient = likelihood.gradient.slice();
    const step = solver.solve(gradient);
    let gain = 0;
    for (let i = 0; i < step.length; i++) gain += gradient[i] * step[i];
    iterations++;
    if (gain / 2 < ENOUGH) {
      at = at.map((x, i) => x + step[i]);
      likelihood.evaluate(at);
      isConverged = true;
      break;
    }
    const next = lineSearch(likelihood, at, step, gain);
    if (!next) {
      // No step uphill is left that can be told from rounding.
      likelihood.evaluate(at);
      break;
    }
    at = next;
  }
  const logWorth = at.slice(0, answers.items);
  const centre = logWorth.reduce((s, x) => s + x, 0) / Math.max(1, logWorth.length);
  for (let i = 0; i < logWorth.length; i++) logWorth[i] -= centre;
  return {
    logWorth,
    tie: withTies ? Math.exp(at[answers.items]) : 0,
    covariates: at.slice(answers.items + (withTies ? 1 : 0)),
    logLikelihood: likelihood.logLikelihood,
    iterations,
    isConverged,
    likelihood,
    parameters: at,
  };
}

function startingPoint(likelihood: WorthLikelihood, knownItems: number, start: Float64Array | null): Float64Array {
  const from = new Float64Array(likelihood.size);
  if (!start) return from;
  if (start.length === from.length) from.set(start);
  // The first tie of all, or a new unit, changes the layout: the log worths that were known still help.
  else from.set(start.subarray(0, Math.min(knownItems, start.length)));
  return from;
}

/** The step that the curvature of the fit before gives; not taken where it does not lead uphill. */
function shortcut(
  likelihood: WorthLikelihood,
  at: Float64Array,
  items: number,
  covariance: Float64Array,
): Float64Array {
  const before = likelihood.objective;
  const next = at.slice();
  // After one answer the gradient is next to zero but for the few things in it.
  for (let j = 0; j < items; j++) {
    const slope = likelihood.gradient[j];
    if (Math.abs(slope) > 1e-12) for (let i = 0; i < items; i++) next[i] += covariance[i * items + j] * slope;
  }
  likelihood.evaluate(next);
  if (likelihood.objective > before) return next;
  likelihood.evaluate(at);
  return at;
}

/** The whole step, or half of it, a quarter … until the objective rises enough (Armijo). */
function lineSearch(
  likelihood: WorthLikelihood,
  at: Float64Array,
  step: Float64Array,
  gain: number,
): Float64Array | null {
  const before = likelihood.objective;
  for (let size = 1; size > 1e-8; size /= 2) {
    const next = at.map((x, i) => x + size * step[i]);
    likelihood.evaluate(next);
    if (likelihood.objective >= before + 1e-4 * size * gain) return next;
  }
  return null;
}

/** Solves "negative Hessian times step = gradient" by conjugate gradients, preconditioned by the diagonal. */
class ConjugateGradients {
  constructor(
    private readonly likelihood: WorthLikelihood,
    private readonly items: number,
    /** Without a penalty all log worths may be shifted together: their sum is then held at zero. */
    private readonly isShiftFree: boolean,
  ) {}

  solve(right: Float64Array): Float64Array {
    const n = right.length;
    const scale = this.likelihood.diagonal().map((d) => (d > 0 ? 1 / d : 1));
    const x = new Float64Array(n);
    const r = right.slice();
    const z = r.map((v, i) => v * scale[i]);
    const p = z.slice();
    const q = new Float64Array(n);
    let rz = dot(r, z);
    // A step needs no more digits than keep Newton's method fast; the next one mends the rest.
    // What is left is about the log likelihood still to be gained: far below any that matters is enough.
    const target = Math.max(1e-12 * rz, 1e-20);
    for (let i = 0; i < 10 * n + 50 && rz > target && rz > 1e-300; i++) {
      this.multiply(p, q);
      const alpha = rz / dot(p, q);
      if (!Number.isFinite(alpha)) break;
      for (let k = 0; k < n; k++) {
        x[k] += alpha * p[k];
        r[k] -= alpha * q[k];
        z[k] = r[k] * scale[k];
      }
      const next = dot(r, z);
      const beta = next / rz;
      rz = next;
      for (let k = 0; k < n; k++) p[k] = z[k] + beta * p[k];
    }
    return x;
  }

  private multiply(v: Float64Array, out: Float64Array): void {
    this.likelihood.multiply(v, out);
    if (!this.isShiftFree) return;
    let sum = 0;
    for (let i = 0; i < this.items; i++) sum += v[i];
    for (let i = 0; i < this.items; i++) out[i] += sum / this.items;
  }
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}
