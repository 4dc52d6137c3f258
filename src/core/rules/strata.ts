/**
 * Probability that one unit beats another, from paired draws; equal draws count half.
 *
 * @param a - draws of the one
 * @param b - draws of the other, as many
 */
export function probabilityOfBeating(a: Float64Array, b: Float64Array): number {
  let wins = 0;
  for (let d = 0; d < a.length; d++) wins += a[d] > b[d] ? 1 : a[d] === b[d] ? 0.5 : 0;
  return wins / a.length;
}

/**
 * Strata: going down the order, a unit opens a new stratum when the first unit of the current one beats it with at
 * least the given probability.
 *
 * @param ordered - draws of each unit, best unit first
 * @param probability - e.g. 0.9
 * @returns number of the stratum of each unit, beginning with 1
 */
export function strataOf(ordered: readonly Float64Array[], probability: number): number[] {
  let first = 0;
  let stratum = 1;
  return ordered.map((draws, i) => {
    if (i > 0 && probabilityOfBeating(ordered[first], draws) >= probability) {
      first = i;
      stratum++;
    }
    return stratum;
  });
}
