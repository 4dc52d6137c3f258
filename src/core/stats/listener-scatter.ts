import { AnswerTable, type OrderAnswer, type PairAnswer } from './comparison-answers';
import type { WorthFit } from './fit-worths';
import { NO_PENALTY } from './fit-worths';
import { WorthLikelihood } from './worth-likelihood';

/** One listener's answers about the things that this listener heard. */
export class ListenerAnswers {
  private readonly places = new Map<number, number>();
  private readonly pairs: PairAnswer[] = [];
  private readonly orders: OrderAnswer[] = [];

  /** Things in the order in which they were heard first. */
  get items(): readonly number[] {
    return [...this.places.keys()];
  }

  addPair(pair: PairAnswer): void {
    this.pairs.push({ ...pair, a: this.place(pair.a), b: this.place(pair.b) });
  }

  addOrder(order: OrderAnswer): void {
    this.orders.push({ ...order, items: order.items.map((i) => this.place(i)) });
  }

  /**
   * The answers as a table over this listener's things alone.
   *
   * @param power - to which weights are raised: 1 for the curvature, 2 for the scatter of faded answers
   */
  table(power: 1 | 2): AnswerTable {
    const table = new AnswerTable(this.places.size);
    for (const pair of this.pairs) table.addPair({ ...pair, weight: pair.weight ** power });
    for (const order of this.orders) table.addOrder({ ...order, weight: order.weight ** power });
    return table;
  }

  get isFaded(): boolean {
    return [...this.pairs, ...this.orders].some((a) => a.weight !== 1);
  }

  private place(item: number): number {
    const known = this.places.get(item);
    if (known !== undefined) return known;
    this.places.set(item, this.places.size);
    return this.places.size - 1;
  }
}

/** How listeners differ, and what that adds to the scatter of a fit. */
export interface ListenerScatter {
  /** Standard deviation of a listener's own log worths about those of all. */
  readonly tasteSd: number;
  readonly listeners: number;
  /**
   * What the gradient scatters by beyond the curvature, size × size: listeners' tastes, and faded answers that scatter
   * less than they weigh.
   */
  readonly extra: Float64Array;
}

/** Tastes differ by this much in log worth before listeners show it (common practice, no source). */
export const USUAL_TASTE_SD = 0.7;
/** It counts like so many readings of a listener's own worths. */
const PRIOR_READINGS = 6;

interface OwnLikelihood {
  readonly items: readonly number[];
  readonly gradient: Float64Array;
  readonly curvature: Float64Array;
  readonly size: number;
  /** Curvature with weights squared; null where no answer has faded. */
  readonly squared: Float64Array | null;
}

/**
 * Scatter of a fit over listeners who each have a taste of their own: worths of a listener lie normally about those of
 * all, with one deviation for all things. The fit stays that of all answers together; its covariance is that of
 * clustered data, H⁻¹·M·H⁻¹ (Liang & Zeger, Biometrika 73, 1986), with M = Σ (Jₗ + τ²·Hₗ·Hₗ) from the model instead of from
 * residuals, which a handful of listeners leave open. τ² is found by moments from the gradients, Σ|gₗ|² = Σ tr Jₗ + τ²·Σ
 * tr Hₗ², together with a prior, so that one listener stands for one listener.
 *
 * @param fit - of all answers
 * @param listeners - the same answers, by listener
 */
export function listenerScatter(fit: WorthFit, listeners: readonly ListenerAnswers[]): ListenerScatter {
  const items = fit.logWorth.length;
  const size = fit.likelihood.size;
  const own = listeners.filter((l) => l.items.length > 1).map((l) => ownLikelihood(fit, l, items));
  const variance = tasteVariance(own, items);
  const extra = new Float64Array(size * size);
  for (const listener of own) addScatter(extra, size, items, listener, variance);
  return { tasteSd: Math.sqrt(variance), listeners: own.length, extra };
}

function ownLikelihood(fit: WorthFit, listener: ListenerAnswers, items: number): OwnLikelihood {
  const withTies = fit.tie > 0;
  const own = listener.items;
  const parameters = new Float64Array(own.length + (withTies ? 1 : 0));
  own.forEach((item, i) => (parameters[i] = fit.parameters[item]));
  if (withTies) parameters[own.length] = fit.parameters[items];
  const likelihood = new WorthLikelihood(listener.table(1), NO_PENALTY, withTies);
  likelihood.evaluate(parameters);
  const squared = listener.isFaded ? new WorthLikelihood(listener.table(2), NO_PENALTY, withTies) : null;
  squared?.evaluate(parameters);
  return {
    items: own,
    gradient: likelihood.gradient.slice(),
    curvature: likelihood.dense(),
    size: likelihood.size,
    squared: squared?.dense() ?? null,
  };
}

function tasteVariance(listeners: readonly OwnLikelihood[], items: number): number {
  let [squares, expected, perTaste, readings] = [0, 0, 0, 0];
  for (const { items: own, gradient, curvature, squared, size } of listeners) {
    const scatter = squared ?? curvature;
    for (let i = 0; i < own.length; i++) {
      squares += gradient[i] ** 2;
      expected += scatter[i * size + i];
      for (let j = 0; j < own.length; j++) perTaste += curvature[i * size + j] ** 2;
      // How much of one independent reading of a taste this listener's answers about a thing are worth.
      const told = USUAL_TASTE_SD ** 2 * curvature[i * size + i];
      readings += told / (1 + told);
    }
  }
  const prior = USUAL_TASTE_SD ** 2;
  const count = listeners.length;
  if (count < 2 || perTaste === 0) return prior;
  // The fit has taken the listeners' common part out of their gradients, as a mean does out of deviations.
  const found = Math.max(0, ((count / (count - 1)) * squares - expected) / perTaste);
  const degrees = Math.max(0, readings - Math.min(items, readings / count));
  return (PRIOR_READINGS * prior + degrees * found) / (PRIOR_READINGS + degrees);
}

/** Adds τ²·H·H over the listener's things, and the difference between scatter and curvature of faded answers. */
function addScatter(extra: Float64Array, size: number, items: number, own: OwnLikelihood, variance: number): void {
  const { curvature, squared, size: n } = own;
  const place = (i: number): number => (i < own.items.length ? own.items[i] : items);
  for (let k = 0; k < own.items.length; k++) {
    const row: number[] = [];
    for (let i = 0; i < n; i++) if (curvature[k * n + i] !== 0) row.push(i);
    for (const i of row)
      for (const j of row) extra[place(i) * size + place(j)] += variance * curvature[k * n + i] * curvature[k * n + j];
  }
  if (squared)
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) extra[place(i) * size + place(j)] += squared[i * n + j] - curvature[i * n + j];
}
