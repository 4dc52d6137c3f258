import { LOW_BAND, LOW_SECTIONS, LOW_STATES, SAMPLES } from './block-layout';

/** Samples of the group that have come, their sum, and their sum under rising weights; that of the group before. */
let inGroup: i32 = 0;
let sum: f64 = 0;
let ramp: f64 = 0;
let rising: f64 = 0;

/** Begins anew at a sample that so many of its group precede; what those were is not known, and counts as zeros. */
export function enterGroup(before: i32): void {
  inGroup = before;
  sum = 0;
  ramp = 0;
  rising = 0;
}

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

/** So many pairs of whole groups, two groups side by side. */
function pairsOfGroups(at: usize, pairs: i32, divisor: i32, out: usize): void {
  const group = (<usize>divisor) << 3,
    even = ((<usize>divisor) >> 1) << 4;
  const d = f64x2.splat(<f64>divisor),
    scale = f64x2.splat(1 / (<f64>divisor * <f64>divisor));
  let before = f64x2.splat(rising),
    from = at,
    to = out;
  for (let i = 0; i < pairs; i++) {
    let weights = f64x2.replace_lane(f64x2.splat(0), 1, 1);
    let sumA = f64x2.splat(0),
      sumB = f64x2.splat(0),
      rampA = f64x2.splat(0),
      rampB = f64x2.splat(0);
    const stop = from + even;
    for (; from < stop; from += 16) {
      const a = v128.load(from),
        b = v128.load(from + group);
      sumA = f64x2.add(sumA, a);
      sumB = f64x2.add(sumB, b);
      rampA = f64x2.add(rampA, f64x2.mul(a, weights));
      rampB = f64x2.add(rampB, f64x2.mul(b, weights));
      weights = f64x2.add(weights, f64x2.splat(2));
    }
    if (even < group) {
      const a = v128.load64_zero(from),
        b = v128.load64_zero(from + group);
      sumA = f64x2.add(sumA, a);
      sumB = f64x2.add(sumB, b);
      rampA = f64x2.add(rampA, f64x2.mul(a, weights));
      rampB = f64x2.add(rampB, f64x2.mul(b, weights));
      from += 8;
    }
    from += group;
    const sums = f64x2.add(v128.shuffle<f64>(sumA, sumB, 0, 2), v128.shuffle<f64>(sumA, sumB, 1, 3)),
      ramps = f64x2.add(v128.shuffle<f64>(rampA, rampB, 0, 2), v128.shuffle<f64>(rampA, rampB, 1, 3));
    const rises = v128.shuffle<f64>(before, ramps, 1, 2);
    v128.store(to, f64x2.mul(f64x2.sub(f64x2.add(rises, f64x2.mul(d, sums)), ramps), scale));
    before = ramps;
    to += 16;
  }
  rising = f64x2.extract_lane(before, 1);
}

/** The samples of a block up to `end` that belong to a group of which a part has come before, or comes later. */
function partOfGroup(at: usize, end: usize): void {
  let weight = <f64>inGroup;
  inGroup += <i32>((end - at) >> 3);
  for (let from = at; from < end; from += 8) {
    const x = load<f64>(from);
    sum += x;
    ramp += x * weight;
    weight++;
  }
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
  const group = (<usize>divisor) << 3;
  let out: usize = LOW_BAND;
  let at: usize = SAMPLES;
  const end: usize = SAMPLES + ((<usize>count) << 3);
  while (at < end) {
    if (inGroup == 0) {
      const pairs = <i32>((end - at) / (2 * group));
      pairsOfGroups(at, pairs, divisor, out);
      at += 2 * group * <usize>pairs;
      out += (<usize>pairs) << 4;
      if (at >= end) break;
    }
    const groupEnd: usize = at + ((<usize>(divisor - inGroup)) << 3);
    const stop: usize = groupEnd < end ? groupEnd : end;
    partOfGroup(at, stop);
    at = stop;
    if (inGroup < divisor) break;
    store<f64>(out, (rising + d * sum - ramp) / (d * d));
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
