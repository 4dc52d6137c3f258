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
 * @param ordered - units, best first
 * @param probability - e.g. 0.9
 * @param beating - how likely one beats another; {@link probabilityOfBeating} where units are their draws
 * @returns number of the stratum of each unit, beginning with 1
 */
export function strataOf<T>(ordered: readonly T[], probability: number, beating: (a: T, b: T) => number): number[] {
  let first = 0;
  let stratum = 1;
  return ordered.map((unit, i) => {
    if (i > 0 && beating(ordered[first], unit) >= probability) {
      first = i;
      stratum++;
    }
    return stratum;
  });
}
