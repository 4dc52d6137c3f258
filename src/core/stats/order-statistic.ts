/**
 * The k-th smallest value, by Hoare's selection (CACM 1961, algorithm 65): linear on average, where sorting would
 * cost more for the two or three values that an interval needs.
 *
 * @param values - reordered in place; no NaN
 * @param k - 0 for the smallest
 * @returns the value; all before index k are not larger, all behind it not smaller
 */
export function selectInPlace(values: Float64Array | Int32Array, k: number): number {
  let low = 0;
  let high = values.length - 1;
  while (low < high) {
    const pivot = values[k];
    let i = low;
    let j = high;
    while (i <= j) {
      while (values[i] < pivot) i++;
      while (values[j] > pivot) j--;
      if (i <= j) {
        const swapped = values[i];
        values[i] = values[j];
        values[j] = swapped;
        i++;
        j--;
      }
    }
    if (j < k) low = i;
    if (k < i) high = j;
  }
  return values[k];
}
