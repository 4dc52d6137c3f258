import { LOW_BAND, LOW_SECTIONS, LOW_STATES, SAMPLES } from './block-layout';

/** Samples of the group that have come, their sum, and their sum under rising weights; that of the group before. */
let inGroup: i32 = 0;
let sum: f64 = 0;
let ramp: f64 = 0;
let rising: f64 = 0;

/** A sample through one of the four sections (transposed direct form II). */
function filtered(section: usize, x: f64): f64 {
  const c: usize = LOW_SECTIONS + section * 40;
  const z: usize = LOW_STATES + section * 16;
  const y = load<f64>(c) * x + load<f64>(z);
  store<f64>(z, load<f64>(c, 8) * x + load<f64>(z, 8) - load<f64>(c, 24) * y);
  store<f64>(z, load<f64>(c, 16) * x - load<f64>(c, 32) * y, 8);
  return y;
}

/**
 * Brings a block down to one sample in `divisor` by triangular averaging (rising weights over the group before, falling
 * ones over this one; groups go on from block to block), and filters what comes of it through four sections, whose
 * coefficients b0 b1 b2 a1 a2 stand at LOW_SECTIONS.
 *
 * @returns how many magnitudes stand at LOW_BAND
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
    let weights = f64x2.replace_lane(f64x2.splat(weight), 1, weight + 1);
    let sums = f64x2.splat(0);
    let ramps = f64x2.splat(0);
    for (; at + 16 <= stop; at += 16) {
      const x = v128.load(at);
      sums = f64x2.add(sums, x);
      ramps = f64x2.add(ramps, f64x2.mul(x, weights));
      weights = f64x2.add(weights, f64x2.splat(2));
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
    let y = (rising + d * sum - ramp) * scale;
    for (let section: usize = 0; section < 4; section++) y = filtered(section, y);
    store<f64>(out, Math.abs(y));
    out += 8;
    rising = ramp;
    inGroup = 0;
    sum = 0;
    ramp = 0;
  }
  return <i32>((out - LOW_BAND) >> 3);
}
