// The interpolator of ITU-R BS.1770-5 Annex 2 over a stretch of samples, two outputs at a time (SIMD), and the largest
// magnitude of what comes out. PHASES: four phases of twelve coefficients, each written twice (so that a vector holds
// it in both lanes). The samples before the block stand before it.
import { HIGHEST, LOWEST, PHASES, SAMPLES, STRIDE } from './block-layout';

/** One phase; its coefficients stay in registers, and two sums keep the additions from waiting for each other. */
function largestOfPhase(phase: usize, begin: usize, end: usize, start: v128): v128 {
  const c: usize = PHASES + phase * 12 * 16;
  const c0 = v128.load(c + 0);
  const c1 = v128.load(c + 16);
  const c2 = v128.load(c + 32);
  const c3 = v128.load(c + 48);
  const c4 = v128.load(c + 64);
  const c5 = v128.load(c + 80);
  const c6 = v128.load(c + 96);
  const c7 = v128.load(c + 112);
  const c8 = v128.load(c + 128);
  const c9 = v128.load(c + 144);
  const c10 = v128.load(c + 160);
  const c11 = v128.load(c + 176);
  let peak = start;
  for (let at: usize = begin; at < end; at += 16) {
    let even = f64x2.mul(c0, v128.load(at));
    let odd = f64x2.mul(c1, v128.load(at - 8));
    even = f64x2.add(even, f64x2.mul(c2, v128.load(at - 16)));
    even = f64x2.add(even, f64x2.mul(c4, v128.load(at - 32)));
    even = f64x2.add(even, f64x2.mul(c6, v128.load(at - 48)));
    even = f64x2.add(even, f64x2.mul(c8, v128.load(at - 64)));
    even = f64x2.add(even, f64x2.mul(c10, v128.load(at - 80)));
    odd = f64x2.add(odd, f64x2.mul(c3, v128.load(at - 24)));
    odd = f64x2.add(odd, f64x2.mul(c5, v128.load(at - 40)));
    odd = f64x2.add(odd, f64x2.mul(c7, v128.load(at - 56)));
    odd = f64x2.add(odd, f64x2.mul(c9, v128.load(at - 72)));
    odd = f64x2.add(odd, f64x2.mul(c11, v128.load(at - 88)));
    peak = f64x2.pmax(peak, f64x2.abs(f64x2.add(even, odd)));
  }
  return peak;
}

/**
 * Largest magnitude of the outputs `from` … `to` − 1 (`to` rounded up to even), never less than `start`. The outer
 * phases amplify less than the inner ones, and are left out where the caller knows that they cannot matter.
 */
function largest(from: i32, to: i32, start: f64, outerPhases: bool): f64 {
  const begin: usize = SAMPLES + ((<usize>from) << 3);
  const end: usize = SAMPLES + ((<usize>to) << 3);
  let peak = f64x2.splat(start);
  peak = largestOfPhase(1, begin, end, peak);
  peak = largestOfPhase(2, begin, end, peak);
  if (outerPhases) {
    peak = largestOfPhase(0, begin, end, peak);
    peak = largestOfPhase(3, begin, end, peak);
  }
  return Math.max(f64x2.extract_lane(peak, 0), f64x2.extract_lane(peak, 1));
}

/**
 * Largest magnitude of the outputs of a block, never less than `start`. No output exceeds the largest sample in reach by
 * more than the gain of its phase, so that strides which cannot matter are left out.
 *
 * @param before - largest magnitude of the stride before the block: the interpolator still reaches into it
 * @param inner - largest gain of the inner phases
 * @param outer - that of the outer ones
 */
export function largestOfBlock(count: i32, start: f64, before: f64, inner: f64, outer: f64): f64 {
  // Vectors hold two samples: one behind the last of a block of odd length.
  store<f64>(SAMPLES + ((<usize>count) << 3), 0);
  let peak = start,
    last = before;
  for (let from = 0, stride: usize = 0; from < count; from += STRIDE, stride += 8) {
    const low = -load<f64>(LOWEST + stride),
      high = load<f64>(HIGHEST + stride);
    const most = high > low ? high : low;
    const reach = most > last ? most : last;
    last = most;
    if (reach * inner <= peak) continue;
    const to = from + STRIDE;
    peak = largest(from, to < count ? to : count, peak, reach * outer > peak);
  }
  return peak;
}

/** The same of the outputs behind the last of so many samples, if silence follows them. */
export function ringOut(count: i32, start: f64): f64 {
  memory.fill(SAMPLES + ((<usize>count) << 3), 0, 13 * 8);
  return largest(count, count + 11, start, true);
}
