// What may be a repeat in a block: a peak that equals, bit by bit, one that came shortly before it.
import { CANDIDATES, HIGHEST, LOWEST, PEAKS, SAMPLES, SLOT_BITS, STRIDE } from './block-layout';

/** A value's slot by Fibonacci hashing, as a sample of up to 24 bits. */
function slotOf(value: f64): usize {
  // No sample is as large; a float may be.
  const whole = <i32>Math.min(Math.floor(value * 16777216 + 0.5), 2147483647);
  return <usize>((<u32>(whole * <i32>0x9e3779b1)) >> (32 - SLOT_BITS));
}

/** Which sample of a stride is the first of that value, eight at a time; one of them is. */
function placeOf(value: f64, stride: usize): i32 {
  const wanted = f64x2.splat(value);
  let at = stride;
  while (true) {
    const a = f64x2.eq(v128.load(at), wanted),
      b = f64x2.eq(v128.load(at, 16), wanted),
      c = f64x2.eq(v128.load(at, 32), wanted),
      d = f64x2.eq(v128.load(at, 48), wanted);
    // 64 bits become 8: a byte for each sample.
    const found = i8x16.bitmask(
      i8x16.narrow_i16x8_s(
        i16x8.narrow_i32x4_s(v128.shuffle<i32>(a, b, 0, 2, 4, 6), v128.shuffle<i32>(c, d, 0, 2, 4, 6)),
        i16x8.splat(0),
      ),
    );
    if (found != 0) return <i32>((at - stride) >> 3) + ctz(found);
    at += 64;
  }
}

/**
 * Takes the peaks of a block (strides that no neighbour exceeds, the outer ones left out) into a table by value, in which
 * a newer one takes the place of an older one, and notes for each that meets its equal where it stands and how far back
 * the other one does.
 *
 * @param strides - of the block
 * @param start - samples before the block
 * @param reach - nearer ones than this are not noted
 * @param longest - nor are those farther back
 * @returns how many pairs stand at CANDIDATES
 */
export function repeats(strides: i32, start: f64, reach: f64, longest: f64): i32 {
  let out: usize = CANDIDATES;
  for (let s = 1; s < strides - 1; s++) {
    const stride = (<usize>s) << 3;
    const top = load<f64>(HIGHEST + stride);
    if (!(top > 0)) continue;
    if (top < load<f64>(HIGHEST + stride - 8) || top < load<f64>(HIGHEST + stride + 8)) continue;
    if (load<f64>(LOWEST + stride) == top) continue;
    const at = start + <f64>(s * STRIDE + placeOf(top, SAMPLES + stride * STRIDE));
    // A slot: place, value.
    const slot = PEAKS + (slotOf(top) << 4);
    const lag = at - load<f64>(slot);
    if (load<f64>(slot, 8) == top && lag > reach && lag <= longest) {
      store<f64>(out, at);
      store<f64>(out, lag, 8);
      out += 16;
    }
    store<f64>(slot, at);
    store<f64>(slot, top, 8);
  }
  return <i32>((out - CANDIDATES) >> 4);
}
