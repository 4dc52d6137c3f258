import { binomialTail } from './binomial';

/** What a listener is found out by, and how often a guesser passes. */
export interface AbxSettings {
  /** How often a guesser may pass. */
  readonly alpha: number;
  /** Share of right answers of the listener whom the test should find. */
  readonly detectable: number;
}

/** Usual in the trade (common practice, no source): one guesser in twenty; three right in four. */
export const ABX_DEFAULTS: AbxSettings = { alpha: 0.05, detectable: 0.75 };

/** Result of a test with a number of trials that was fixed before. */
export interface AbxResult {
  readonly right: number;
  readonly trials: number;
  /** Probability that a guesser has as many right or more (one-sided binomial). */
  readonly p: number;
  readonly isShown: boolean;
  /** Right answers that would have been enough; null where no number would. */
  readonly needed: number | null;
  /** Probability that the listener of the settings would have been found. */
  readonly power: number;
}

/**
 * The fewest right answers that a guesser reaches in at most a share alpha of tests.
 *
 * @param trials - fixed before the test
 * @param alpha - e.g. 0.05
 * @returns null where even all right would not do
 *
 * @example
 *   abxNeeded(16, 0.05); // => 12
 */
export function abxNeeded(trials: number, alpha: number): number | null {
  for (let k = Math.ceil(trials / 2); k <= trials; k++) if (binomialTail(k, trials, 0.5) <= alpha) return k;
  return null;
}

/**
 * One-sided binomial test of a fixed number of trials, with its power.
 *
 * @param right - right answers
 * @param trials - answered trials, at least one
 * @param settings - error and the listener to be found
 */
export function abxResult(right: number, trials: number, settings: AbxSettings = ABX_DEFAULTS): AbxResult {
  const needed = abxNeeded(trials, settings.alpha);
  const p = binomialTail(right, trials, 0.5);
  return {
    right,
    trials,
    p,
    isShown: trials > 0 && p <= settings.alpha,
    needed,
    power: needed === null ? 0 : binomialTail(needed, trials, settings.detectable),
  };
}

/** Where an open-ended test stands. */
export interface SequentialAbx {
  readonly verdict: 'go-on' | 'shown' | 'not-shown';
  readonly right: number;
  readonly trials: number;
  /** Likelihood of the answers under the detectable listener, over that under guessing. */
  readonly ratio: number;
}

/**
 * Open-ended test: stop as soon as the likelihood ratio of "hears it" to "guesses" leaves the band from beta to
 * 1 / alpha. Under guessing the ratio is a martingale of mean 1, so that it ever reaches 1 / alpha with a
 * probability of at most alpha, however often one looks (Ville's inequality); likewise, turned round, for beta.
 *
 * @param answers - true for right, in order; answers after the decision do not count
 * @param settings - error and the listener to be found
 * @param beta - how often the detectable listener may be missed
 * @see Wald, Sequential Tests of Statistical Hypotheses, Ann. Math. Statist. 16 (1945); with the bounds on the safe side
 */
export function sequentialAbx(
  answers: readonly boolean[],
  settings: AbxSettings = ABX_DEFAULTS,
  beta = 0.2,
): SequentialAbx {
  let ratio = 1;
  let right = 0;
  for (const [i, isRight] of answers.entries()) {
    right += isRight ? 1 : 0;
    ratio *= 2 * (isRight ? settings.detectable : 1 - settings.detectable);
    // A ratio of exactly 1 / alpha, rounded, still counts.
    const verdict = ratio >= (1 - 1e-12) / settings.alpha ? 'shown' : ratio <= beta ? 'not-shown' : null;
    if (verdict) return { verdict, right, trials: i + 1, ratio };
  }
  return { verdict: 'go-on', right, trials: answers.length, ratio };
}
