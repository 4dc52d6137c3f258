import fc from 'fast-check';

const STEPS = 1_000_000;

/**
 * Numbers that lie evenly between two limits, both included. The doubles of fast-check are drawn by their bits: between
 * −30 and 12 nearly all of them are as good as zero, and a property of "any gain" is then one of none.
 *
 * @param low - lower limit
 * @param high - upper limit
 */
export const evenly = (low: number, high: number): fc.Arbitrary<number> =>
  fc.integer({ min: 0, max: STEPS }).map((step) => low + ((high - low) * step) / STEPS);
