import { LOW_BAND, LOW_SECTIONS, LOW_STATES, SAMPLES } from './block-layout';

/** Samples of the group that have come, their sum, and their sum under rising weights; that of the group before. */
let inGroup: i32 = 0;
let sum: f64 = 0;
let ramp: f64 = 0;
let rising: f64 = 0;

/** So many samples at LOW_BAND through two sections (transposed direct form II), whose states stay in registers. */
function throughTwo(first: usize, count: i32): void {
  const c: usize = LOW_SECTIONS + first * 40;
  const z: usize = LOW_STATES + first * 16;
  const b0 = load<f64>(c),
    b1 = load<f64>(c, 8),
    b2 = load<f64>(c, 16),
    a1 = load<f64>(c, 24),
    a2 = load<f64>(c, 32);
  const d0 = load<f64>(c, 40),
    d1 = load<f64>(c, 48),
    d2 = load<f64>(c, 56),
    e1 = load<f64>(c, 64),
    e2 = load<f64>(c, 72);
  let z1 = load<f64>(z),
    z2 = load<f64>(z, 8),
    w1 = load<f64>(z, 16),
    w2 = load<f64>(z, 24);
  const end: usize = LOW_BAND + ((<usize>count) << 3);
  for (let at: usize = LOW_BAND; at < end; at += 8) {
    const x = load<f64>(at);
    const y = b0 * x + z1;
    z1 = b1 * x + z2 - a1 * y;
    z2 = b2 * x - a2 * y;
    const v = d0 * y + w1;
    w1 = d1 * y + w2 - e1 * v;
    w2 = d2 * y - e2 * v;
    store<f64>(at, v);
  }
  store<f64>(z, z1);
  store<f64>(z, z2, 8);
  store<f64>(z, w1, 16);
  store<f64>(z, w2, 24);
}

/**
 * Brings a block down to one sample in `divisor` by triangular averaging (rising weights over the group before, falling
 * ones over this one; groups go on from block to block), and filters what comes of it through four sections, whose
 * coefficients b0 b1 b2 a1 a2 stand at LOW_SECTIONS.
 *
 * @returns how many samples stand at LOW_BAND
 */
export function lowBand(count: i32, divisor: i32): i32 {
  const d = <f64>divisor;
  const scale = 1 / (d * d);
  let out: usize = LOW_BAND;
  let at: usize = SAMPLES;
  const end: usize = SAMPLES + ((<usize>count) << 3);
  while (at < end) {
    const groupEnd: usize = at + ((<usize>(divisor - inGroup)) << 3);
    const stop: usize = groupEnd < end ? groupEnd : end;
    let weight = <f64>inGroup;
    inGroup += <i32>((stop - at) >> 3);
    // Two samples side by side, and two such pairs, so that one addition need not wait for the other.
    let weights = f64x2.replace_lane(f64x2.splat(weight), 1, weight + 1);
    let sums = f64x2.splat(0),
      more = f64x2.splat(0);
    let ramps = f64x2.splat(0),
      steeper = f64x2.splat(0);
    for (; at + 32 <= stop; at += 32) {
      const x = v128.load(at),
        y = v128.load(at, 16);
      sums = f64x2.add(sums, x);
      more = f64x2.add(more, y);
      ramps = f64x2.add(ramps, f64x2.mul(x, weights));
      steeper = f64x2.add(steeper, f64x2.mul(y, f64x2.add(weights, f64x2.splat(2))));
      weights = f64x2.add(weights, f64x2.splat(4));
    }
    sums = f64x2.add(sums, more);
    ramps = f64x2.add(ramps, steeper);
    if (at + 16 <= stop) {
      const x = v128.load(at);
      sums = f64x2.add(sums, x);
      ramps = f64x2.add(ramps, f64x2.mul(x, weights));
      weights = f64x2.add(weights, f64x2.splat(2));
      at += 16;
    }
    sum += f64x2.extract_lane(sums, 0) + f64x2.extract_lane(sums, 1);
    ramp += f64x2.extract_lane(ramps, 0) + f64x2.extract_lane(ramps, 1);
    if (at < stop) {
      const x = load<f64>(at);
      sum += x;
      ramp += x * f64x2.extract_lane(weights, 0);
      at += 8;
    }
    if (inGroup < divisor) break;
    store<f64>(out, (rising + d * sum - ramp) * scale);
    out += 8;
    rising = ramp;
    inGroup = 0;
    sum = 0;
    ramp = 0;
  }
  const low = <i32>((out - LOW_BAND) >> 3);
  throughTwo(0, low);
  throughTwo(2, low);
  return low;
}

/** Largest magnitude of the samples `from` … `to` − 1 at LOW_BAND. */
export function largestLow(from: i32, to: i32): f64 {
  let at: usize = LOW_BAND + ((<usize>from) << 3);
  const end: usize = LOW_BAND + ((<usize>to) << 3);
  let pair = f64x2.splat(0);
  for (; at + 16 <= end; at += 16) pair = f64x2.pmax(pair, f64x2.abs(v128.load(at)));
  const largest = Math.max(f64x2.extract_lane(pair, 0), f64x2.extract_lane(pair, 1));
  return at < end ? Math.max(largest, Math.abs(load<f64>(at))) : largest;
}
