import { chiSquaredTail } from './chi-squared';
import { factorise } from './cholesky';
import { AnswerTable } from './comparison-answers';
import { fitWorths, USUAL_PENALTY } from './fit-worths';

/** An answer with one circumstance of each thing in it. */
export interface AnswerWithCircumstance {
  /** As given for a pair, best first for an order. */
  readonly items: readonly number[];
  /** Null for an order. */
  readonly outcome: 1 | 0.5 | 0 | null;
  readonly tiesAllowed: boolean;
  readonly weight: number;
  /** One number per thing. */
  readonly covariate: readonly number[];
}

/** How much a circumstance that should not matter does. */
export interface AnswerEffect {
  /** Log odds per unit of the circumstance; positive: it helps. */
  readonly estimate: number;
  readonly se: number;
  /** Likelihood ratio test against no effect (χ² with one degree of freedom). */
  readonly p: number;
  readonly answers: number;
}

/**
 * Tests whether a circumstance (heard first, louder, known by name) shifts answers, beside the worths.
 *
 * @param units - how many things there are
 * @param answers - with the circumstance
 * @see Agresti, Categorical Data Analysis, 10.6 (order effects in the Bradley–Terry model); Wilks, Ann. Math. Statist. 9 (1938)
 */
export function answerEffect(units: number, answers: readonly AnswerWithCircumstance[]): AnswerEffect {
  const plain = new AnswerTable(units);
  const full = new AnswerTable(units, 1);
  for (const { items, outcome, tiesAllowed, weight, covariate } of answers) {
    if (outcome === null) {
      plain.addOrder({ items, weight });
      full.addOrder({ items, weight, covariates: covariate.map((x) => [x]) });
    } else {
      const pair = { a: items[0], b: items[1], outcome, tiesAllowed, weight };
      plain.addPair(pair);
      full.addPair({ ...pair, covariates: [covariate[0] - covariate[1]] });
    }
  }
  const without = fitWorths(plain);
  const fit = fitWorths(full);
  const { size } = fit.likelihood;
  const estimate = fit.covariates[0];
  // Twice the gain in penalised likelihood; the prior on the effect itself is next to nothing.
  const gain = fit.likelihood.objective + (USUAL_PENALTY.others / 2) * estimate ** 2 - without.likelihood.objective;
  const chi = Math.max(0, 2 * gain);
  return {
    estimate,
    se: Math.sqrt(factorise(fit.likelihood.dense(), size)?.inverse()[size * size - 1] ?? NaN),
    p: chiSquaredTail(chi, 1),
    answers: answers.length,
  };
}
