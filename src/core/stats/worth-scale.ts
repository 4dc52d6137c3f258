import type { AnswerTable } from './comparison-answers';
import { comparisonGraph, type ComparisonGraph } from './comparison-graph';
import { fitWorths, USUAL_PENALTY, type WorthFit } from './fit-worths';
import { rankDistribution } from './place-distribution';
import { standardErrors, worthPosterior, type PosteriorOptions, type WorthPosterior } from './worth-posterior';
import type { WorthPenalty } from './worth-likelihood';

/** Where one thing stands. */
export interface ScaleItem {
  /** All worths together are 1. */
  readonly worth: number;
  /** Mean zero over the scale. */
  readonly logWorth: number;
  /** Standard error of the log worth against the mean of all. */
  readonly se: number;
  /** 1 = best. */
  readonly place: number;
  /** 5 % and 95 % points of the place. */
  readonly place90: readonly [number, number];
  /** Number of the component of things that were compared with each other. */
  readonly component: number;
}

/** One scale over everything that was ever compared. */
export interface WorthScale {
  readonly fit: WorthFit;
  readonly posterior: WorthPosterior;
  readonly graph: ComparisonGraph;
  readonly items: readonly ScaleItem[];
}

/**
 * Fits answers and says how sure each place is.
 *
 * @param answers - pairs and orders
 * @param penalty - see USUAL_PENALTY
 * @param options - draws and their seed
 */
export function worthScale(
  answers: AnswerTable,
  penalty: WorthPenalty = USUAL_PENALTY,
  options: PosteriorOptions & { readonly start?: Float64Array } = {},
): WorthScale {
  const fit = fitWorths(answers, penalty, options.start ?? null);
  return scaleFrom(fit, worthPosterior(fit, options), comparisonGraph(answers));
}

/** Puts fit, posterior and graph together. */
export function scaleFrom(fit: WorthFit, posterior: WorthPosterior, graph: ComparisonGraph): WorthScale {
  const { logWorth } = fit;
  const all = Array.from(logWorth, (_, i) => i);
  const places = placesAmong(logWorth, posterior, all);
  const most = logWorth.reduce((a, b) => Math.max(a, b), -Infinity);
  const total = logWorth.reduce((s, x) => s + Math.exp(x - most), 0);
  const errors = standardErrors(posterior);
  return {
    fit,
    posterior,
    graph,
    items: Array.from(logWorth, (x, i) => ({
      worth: Math.exp(x - most) / total,
      logWorth: x,
      se: errors[i],
      ...places[i],
      component: graph.component[i],
    })),
  };
}

/**
 * Places among some of the things: who is asked about decides, whoever else was ever compared.
 *
 * @param logWorth - of all
 * @param posterior - of all
 * @param among - indices of those that are ranked
 * @returns for each of `among`, in its order, the place (1 = best) and its 5 % and 95 % points
 */
export function placesAmong(
  logWorth: ArrayLike<number>,
  posterior: Pick<WorthPosterior, 'draws'>,
  among: readonly number[],
): Pick<ScaleItem, 'place' | 'place90'>[] {
  const spread = rankDistribution(among.map((i) => posterior.draws[i]));
  const order = among.map((_, i) => i).sort((a, b) => logWorth[among[b]] - logWorth[among[a]] || among[a] - among[b]);
  const places = new Int32Array(among.length);
  order.forEach((item, i) => (places[item] = i + 1));
  return among.map((_, i) => ({ place: places[i], place90: spread[i].interval }));
}
