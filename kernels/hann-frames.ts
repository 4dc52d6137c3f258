// AssemblyScript, compiled by `npm run kernels` into src/core/dsp/hann-frames-kernel.ts.
//
// Powers of windowed frames, two at a time through one transform, in single precision: four numbers in a vector. What a
// transform of floats adds is noise 138 dB below the frame (of the pair, the louder one), spread over all bins. Sums over
// bins and over frames are kept in doubles.
//
// It works in the memory of a channel's block (channel-block.ts), so that samples are written once. From where plan is told
// to begin: input and work, n values each, as the stages of stockham.ts keep them; the table of the first stage; of a
// quarter of the size the table of the first stage, then those of the later ones; the window; samples of two frames. Then
// powers of both frames (n/2 floats each); weights per bin, and the sum of the powers of all frames (n/2 doubles each); 64
// ranges of bins (first, last, share of the first, share of the last), and the sum of each. The caller fills tables,
// window, weights and ranges.
import { pairPowers } from './pair-powers';
import { Frames, fillFactors, first, laterFactors, transformQuarters } from './stockham';

/** Bytes: an odd number of cache lines. Without gaps all that a butterfly reads and writes would meet in one set of the cache. */
const GAP: usize = 9 * 64;
const MOST_RANGES: usize = 64;

let n: i32 = 0;
let INPUT: usize = 0,
  WORK: usize = 0,
  FIRST: usize = 0,
  QUARTER_FIRST: usize = 0,
  LATER: usize = 0;
/** Where the caller finds what it fills and reads. */
export let WINDOW: usize = 0;
export let SAMPLES: usize = 0;
export let POWERS_A: usize = 0;
export let POWERS_B: usize = 0;
export let WEIGHTS: usize = 0;
export let TOTALS: usize = 0;
export let RANGES: usize = 0;
export let SUMS: usize = 0;

/** Lays out memory for frames of a size (a power of two, 64 or more). */
export function plan(size: i32, from: usize): void {
  n = size;
  const bytes: usize = (<usize>size) << 2;
  INPUT = from;
  WORK = INPUT + 2 * bytes + GAP;
  FIRST = WORK + 2 * bytes + GAP;
  QUARTER_FIRST = FIRST + 6 * (bytes >> 2);
  LATER = QUARTER_FIRST + 6 * (bytes >> 4);
  // Doubles behind it lie where doubles should.
  WINDOW = (LATER + ((<usize>laterFactors(size >> 2)) << 2) + 63) & ~63;
  SAMPLES = WINDOW + bytes + GAP;
  POWERS_A = SAMPLES + 2 * bytes + GAP;
  POWERS_B = POWERS_A + (bytes >> 1) + GAP;
  WEIGHTS = POWERS_B + (bytes >> 1) + GAP;
  TOTALS = WEIGHTS + bytes + GAP;
  RANGES = TOTALS + bytes + GAP;
  SUMS = RANGES + MOST_RANGES * 32;
}

/** Fills the tables, those of the size or those of a quarter of it, from cosines that stand where the window begins. */
export function fill(size: i32): void {
  if (size == n) fillFactors<f32>(WINDOW, size, FIRST, 0);
  else fillFactors<f32>(WINDOW, size, QUARTER_FIRST, LATER);
}

/** Takes `count` doubles from an address on; they stand behind the `filled` samples that came before. */
export function gather(from: usize, count: i32, filled: i32): void {
  let at = from,
    to: usize = SAMPLES + ((<usize>filled) << 2);
  const end = at + ((<usize>count) << 3);
  for (; at + 32 <= end; at += 32, to += 16) {
    const a = f32x4.demote_f64x2_zero(v128.load(at)),
      b = f32x4.demote_f64x2_zero(v128.load(at, 16));
    v128.store(to, v128.shuffle<f64>(a, b, 0, 2));
  }
  for (; at < end; at += 8, to += 4) store<f32>(to, <f32>load<f64>(at));
}

/** Moves `count` samples from `from` on to the front. */
export function keep(from: i32, count: i32): void {
  memory.copy(SAMPLES, SAMPLES + ((<usize>from) << 2), (<usize>count) << 2);
}

/**
 * Powers of two successive frames: windowed samples in, |A|² and |B|² times a quarter of the scale out, bins
 * 1 … `bins` − 1 (bin 0 is 0; a multiple of 16). The second frame begins `step` samples after the first.
 */
export function framePair(scale: f32, step: i32, bins: i32): void {
  first<Frames, f32>(
    SAMPLES,
    <usize>n,
    (<usize>step) << 2,
    WINDOW - SAMPLES,
    INPUT,
    (<usize>n) << 1,
    FIRST,
    QUARTER_FIRST,
  );
  const quarters = transformQuarters<f32>(n >> 2, INPUT, WORK, QUARTER_FIRST, LATER, LATER);
  pairPowers<f32>(quarters, (<usize>n) << 1, scale / 4, (<usize>bins) << 1, POWERS_A, POWERS_B);
}

/** The upper two floats as doubles. */
function upper(four: v128): v128 {
  return f64x2.promote_low_f32x4(v128.shuffle<f64>(four, four, 1, 1));
}

/** Sum of the floats from `at` up to `end`: four sums of two side by side, so that no addition waits for another. */
function sum(at: usize, end: usize): f64 {
  let a = f64x2.splat(0),
    b = f64x2.splat(0),
    c = f64x2.splat(0),
    d = f64x2.splat(0);
  for (; at + 32 <= end; at += 32) {
    const four = v128.load(at),
      next = v128.load(at, 16);
    a = f64x2.add(a, f64x2.promote_low_f32x4(four));
    b = f64x2.add(b, upper(four));
    c = f64x2.add(c, f64x2.promote_low_f32x4(next));
    d = f64x2.add(d, upper(next));
  }
  a = f64x2.add(f64x2.add(a, b), f64x2.add(c, d));
  let rest: f64 = 0;
  for (; at < end; at += 4) rest += <f64>load<f32>(at);
  return f64x2.extract_lane(a, 0) + f64x2.extract_lane(a, 1) + rest;
}

/** Sums a frame's powers over so many ranges, outer bins in part. */
export function rangeSums(isSecond: bool, ranges: i32): void {
  const power = isSecond ? POWERS_B : POWERS_A;
  for (let i = 0; i < ranges; i++) {
    const range = RANGES + <usize>i * 32;
    const from = power + ((<usize>load<f64>(range)) << 2);
    const to = power + ((<usize>load<f64>(range, 8)) << 2);
    const share = load<f64>(range, 24);
    const end = share > 0 ? share * <f64>load<f32>(to) : 0;
    store<f64>(SUMS + ((<usize>i) << 3), load<f64>(range, 16) * <f64>load<f32>(from) + sum(from + 4, to) + end);
  }
}

/** Adds a frame's powers to the totals; returns their sum under the weights. */
export function addFrame(isSecond: bool): f64 {
  let power = isSecond ? POWERS_B : POWERS_A,
    total = TOTALS;
  const weights = WEIGHTS - TOTALS,
    end = TOTALS + ((<usize>n) << 2);
  let a = f64x2.splat(0),
    b = f64x2.splat(0);
  for (; total < end; total += 32, power += 16) {
    const four = v128.load(power);
    const low = f64x2.promote_low_f32x4(four),
      high = upper(four);
    const w: usize = total + weights;
    a = f64x2.add(a, f64x2.mul(low, v128.load(w)));
    b = f64x2.add(b, f64x2.mul(high, v128.load(w, 16)));
    v128.store(total, f64x2.add(v128.load(total), low));
    v128.store(total, f64x2.add(v128.load(total, 16), high), 16);
  }
  a = f64x2.add(a, b);
  return f64x2.extract_lane(a, 0) + f64x2.extract_lane(a, 1);
}
