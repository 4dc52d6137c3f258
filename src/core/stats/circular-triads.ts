import { chiSquaredTail } from './chi-squared';

/** How consistent one listener is with themselves. */
export interface Consistency {
  /** Triads such as A over B, B over C, C over A. */
  readonly circular: number;
  /** Most circular triads that so many items can have. */
  readonly most: number;
  /** Coefficient of consistence: 1 none circular, 0 as many as can be. */
  readonly zeta: number;
  /** Circular triads that somebody who answers at random has on average. */
  readonly byChance: number;
  /** Probability that somebody who answers at random is as consistent or more (χ² approximation); null below 8 items, where it is not good. */
  readonly p: number | null;
}

/**
 * Circular triads of a complete set of pairs (every item met every other once, no ties).
 *
 * @param beats - beats[i][j]: item i was preferred to item j
 * @see Kendall & Babington Smith, On the method of paired comparisons, Biometrika 31 (1940)
 */
export function consistency(beats: readonly (readonly boolean[])[]): Consistency {
  const n = beats.length;
  const wins = beats.map((row, i) => row.filter((isWin, j) => j !== i && isWin).length);
  const circular = (n * (n - 1) * (2 * n - 1)) / 12 - wins.reduce((s, a) => s + a * a, 0) / 2;
  const most = n % 2 === 1 ? (n ** 3 - n) / 24 : (n ** 3 - 4 * n) / 24;
  return {
    circular,
    most,
    zeta: most > 0 ? 1 - circular / most : 1,
    byChance: (n * (n - 1) * (n - 2)) / 24,
    p: n < 8 ? null : triadTail(circular, n),
  };
}

/** Kendall & Babington Smith's approximation: as consistent or more, that is as few circular triads or fewer. */
function triadTail(circular: number, n: number): number {
  const df = (n * (n - 1) * (n - 2)) / (n - 4) ** 2;
  const chi = (8 / (n - 4)) * ((n * (n - 1) * (n - 2)) / 24 - circular + 0.5) + df;
  return chiSquaredTail(chi, df);
}
