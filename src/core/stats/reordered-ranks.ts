import { meanRanks } from './agreement';

/**
 * Spearman's rank correlation of one list, put into ever other orders, with another that is known in some places alone.
 * What does not depend on the order is counted once: for permutation tests, where it is asked thousands of times.
 */
export class ReorderedRanks {
  /** Values of the reordered list as whole numbers from 0 for the largest, equal ones equal. */
  private readonly codes: Int32Array;
  private readonly at: Int32Array;
  /** Ranks of the other list less their mean, and the sum of their squares. */
  private readonly centred: Float64Array;
  private readonly spread: number;
  private readonly counts: Int32Array;
  private readonly ranks: Float64Array;

  /**
   * @param of - the list that is reordered
   * @param at - places of it at which the other is known
   * @param values - of the other, as many as `at`
   */
  constructor(of: readonly number[], at: readonly number[], values: readonly number[]) {
    const distinct = [...new Set(of)].sort((a, b) => b - a);
    const codeOf = new Map(distinct.map((value, code) => [value, code]));
    this.codes = Int32Array.from(of, (value) => codeOf.get(value) ?? 0);
    this.at = Int32Array.from(at);
    const middle = (values.length + 1) / 2;
    this.centred = Float64Array.from(meanRanks(values), (rank) => rank - middle);
    this.spread = this.centred.reduce((sum, v) => sum + v * v, 0);
    this.counts = new Int32Array(distinct.length);
    this.ranks = new Float64Array(distinct.length);
  }

  /**
   * @param order - place i has the value that stood at `order[i]`
   * @returns −1…1; null where one of the two does not vary
   */
  correlation(order: readonly number[]): number | null {
    const { codes, at, centred, counts, ranks } = this;
    counts.fill(0);
    for (const i of at) counts[codes[order[i]]]++;
    const middle = (at.length + 1) / 2;
    let [below, spread] = [0, 0];
    for (let code = 0; code < counts.length; code++) {
      const count = counts[code];
      // Equal values share the mean of their ranks.
      ranks[code] = below + (count + 1) / 2 - middle;
      spread += count * ranks[code] ** 2;
      below += count;
    }
    if (spread <= 0 || this.spread <= 0) return null;
    let product = 0;
    for (let k = 0; k < at.length; k++) product += ranks[codes[order[at[k]]]] * centred[k];
    return product / Math.sqrt(spread * this.spread);
  }
}
