import { chiSquaredTail } from './chi-squared';

/** How far listeners agree in their orders. */
export interface Agreement {
  /** Kendall's W: 0 none, 1 complete. */
  readonly w: number;
  /** Friedman's statistic, m (n − 1) W. */
  readonly chiSquared: number;
  readonly df: number;
  /** Probability of as much agreement or more among listeners who order at random (χ² approximation). */
  readonly p: number;
  readonly listeners: number;
  readonly items: number;
}

/**
 * Ranks of values, equal values sharing the mean of their ranks.
 *
 * @param values - the highest gets rank 1
 *
 * @example
 *   meanRanks([10, 20, 20, 30]); // => [4, 2.5, 2.5, 1]
 */
export function meanRanks(values: readonly number[]): number[] {
  const order = values.map((_, i) => i).sort((a, b) => values[b] - values[a]);
  const ranks = new Array<number>(values.length);
  for (let i = 0; i < order.length;) {
    let end = i + 1;
    while (end < order.length && values[order[end]] === values[order[i]]) end++;
    for (let k = i; k < end; k++) ranks[order[k]] = (i + 1 + end) / 2;
    i = end;
  }
  return ranks;
}

/**
 * Kendall's coefficient of concordance with Friedman's test, corrected for ties.
 *
 * @param scores - one list per listener, over the same items; higher is better
 * @returns null for fewer than two listeners or items, or where everyone ties everything
 * @see Kendall & Babington Smith, The problem of m rankings, Ann. Math. Statist. 10 (1939); Friedman, JASA 32 (1937)
 */
export function agreement(scores: readonly (readonly number[])[]): Agreement | null {
  const m = scores.length;
  const n = scores.at(0)?.length ?? 0;
  if (m < 2 || n < 2) return null;
  const ranks = scores.map(meanRanks);
  const sums = Array.from({ length: n }, (_, i) => ranks.reduce((s, r) => s + r[i], 0));
  const centre = (m * (n + 1)) / 2;
  const squares = sums.reduce((s, r) => s + (r - centre) ** 2, 0);
  const ties = ranks.reduce((s, r) => s + tieCorrection(r), 0);
  const most = (m * m * (n ** 3 - n) - m * ties) / 12;
  if (most <= 0) return null;
  const w = squares / most;
  const chiSquared = m * (n - 1) * w;
  return { w, chiSquared, df: n - 1, p: chiSquaredTail(chiSquared, n - 1), listeners: m, items: n };
}

/** Σ (t³ − t) over the groups of equal ranks. */
function tieCorrection(ranks: readonly number[]): number {
  const groups = new Map<number, number>();
  for (const rank of ranks) groups.set(rank, (groups.get(rank) ?? 0) + 1);
  return [...groups.values()].reduce((s, t) => s + t ** 3 - t, 0);
}
