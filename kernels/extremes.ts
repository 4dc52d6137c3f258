import { BLOCK_EXTREMES, HIGHEST, LOWEST, SAMPLES, STRIDE } from './block-layout';

/**
 * Lowest and highest sample of every stride of a block; the last one may be short. Pairs of samples side by side, and
 * two such pairs, so that one comparison need not wait for the other.
 */
function ofStrides(count: i32): void {
  let low: usize = LOWEST;
  let high: usize = HIGHEST;
  const whole = count / STRIDE;
  let at: usize = SAMPLES;
  for (let s = 0; s < whole; s++) {
    let low0 = v128.load(at);
    let high0 = low0;
    let low1 = v128.load(at, 16);
    let high1 = low1;
    const end: usize = at + ((<usize>STRIDE) << 3);
    for (at += 32; at < end; at += 32) {
      const a = v128.load(at);
      const b = v128.load(at, 16);
      low0 = f64x2.pmin(low0, a);
      high0 = f64x2.pmax(high0, a);
      low1 = f64x2.pmin(low1, b);
      high1 = f64x2.pmax(high1, b);
    }
    low0 = f64x2.pmin(low0, low1);
    high0 = f64x2.pmax(high0, high1);
    v128.store64_lane(low, f64x2.pmin(low0, v128.shuffle<f64>(low0, low0, 1, 0)), 0);
    v128.store64_lane(high, f64x2.pmax(high0, v128.shuffle<f64>(high0, high0, 1, 0)), 0);
    low += 8;
    high += 8;
  }
  if (whole * STRIDE == count) return;
  let lowest = load<f64>(at);
  let highest = lowest;
  for (const end: usize = SAMPLES + ((<usize>count) << 3); at < end; at += 8) {
    lowest = Math.min(lowest, load<f64>(at));
    highest = Math.max(highest, load<f64>(at));
  }
  store<f64>(low, lowest);
  store<f64>(high, highest);
}

/** The same of the whole block, and how many of its strides hold one and the same value. */
export function extremes(count: i32): void {
  ofStrides(count);
  let lowest = f64x2.splat(Infinity),
    highest = f64x2.splat(-Infinity),
    flat = i64x2.splat(0);
  const end: usize = (<usize>((count + STRIDE - 1) / STRIDE)) << 3;
  let s: usize = 0;
  for (; s + 16 <= end; s += 16) {
    const low = v128.load(LOWEST + s),
      high = v128.load(HIGHEST + s);
    lowest = f64x2.pmin(lowest, low);
    highest = f64x2.pmax(highest, high);
    // All bits of what is equal are ones: minus one.
    flat = i64x2.sub(flat, f64x2.eq(low, high));
  }
  let strides = i64x2.extract_lane(flat, 0) + i64x2.extract_lane(flat, 1);
  if (s < end) {
    const low = load<f64>(LOWEST + s),
      high = load<f64>(HIGHEST + s);
    lowest = f64x2.pmin(lowest, f64x2.splat(low));
    highest = f64x2.pmax(highest, f64x2.splat(high));
    if (low == high) strides++;
  }
  store<f64>(BLOCK_EXTREMES, Math.min(f64x2.extract_lane(lowest, 0), f64x2.extract_lane(lowest, 1)));
  store<f64>(BLOCK_EXTREMES, Math.max(f64x2.extract_lane(highest, 0), f64x2.extract_lane(highest, 1)), 8);
  store<f64>(BLOCK_EXTREMES, <f64>strides, 16);
}
