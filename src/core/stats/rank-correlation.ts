import { meanRanks } from './agreement';
import { mean } from './moments';

/**
 * Spearman's rank correlation, equal values sharing the mean of their ranks.
 *
 * @param x - any length
 * @param y - as long
 * @returns −1…1; null where one of the two does not vary
 * @see Spearman, Amer. J. Psychol. 15 (1904)
 *
 * @example
 *   rankCorrelation([1, 2, 3], [10, 20, 30]); // => 1
 */
export function rankCorrelation(x: readonly number[], y: readonly number[]): number | null {
  const [a, b] = [meanRanks(x), meanRanks(y)];
  const [ma, mb] = [mean(a), mean(b)];
  let [ab, aa, bb] = [0, 0, 0];
  a.forEach((v, i) => {
    ab += (v - ma) * (b[i] - mb);
    aa += (v - ma) ** 2;
    bb += (b[i] - mb) ** 2;
  });
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : null;
}
