/** The bins of a spectrum that a band covers; a bin k covers (k ± ½) times the bin width. */
export interface BinRange {
  readonly first: number;
  readonly last: number;
  /** Share of the first and last bin that lies inside the band. */
  readonly firstShare: number;
  readonly lastShare: number;
}

/**
 * Bins of a band, the outer ones in part, so that neighbouring bands share every bin without gap or overlap.
 *
 * @param band - its edges
 * @param band.lowHz - lower one, in hertz
 * @param band.highHz - upper one
 * @param binWidth - in hertz
 */
export function binRange(band: { readonly lowHz: number; readonly highHz: number }, binWidth: number): BinRange {
  const low = band.lowHz / binWidth + 0.5;
  const high = band.highHz / binWidth + 0.5;
  const first = Math.floor(low);
  const last = Math.floor(high);
  return first === last
    ? { first, last, firstShare: high - low, lastShare: 0 }
    : { first, last, firstShare: first + 1 - low, lastShare: high - last };
}

/** Sum of powers over a range. */
export function sumRange(power: Float64Array, range: BinRange): number {
  let sum = range.firstShare * power[range.first];
  for (let k = range.first + 1; k < range.last; k++) sum += power[k];
  return range.lastShare > 0 ? sum + range.lastShare * power[range.last] : sum;
}

/** How much of a bin a range covers, 0…1. */
export function shareOf(bin: number, { first, last, firstShare, lastShare }: BinRange): number {
  if (bin === first) return firstShare;
  if (bin === last) return lastShare;
  return bin > first && bin < last ? 1 : 0;
}
