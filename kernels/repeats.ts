// What may be a repeat in a block: a peak that equals, bit by bit, one that came shortly before it.
import { CANDIDATES, HIGHEST, LOWEST, PEAK_PLACES, PEAK_VALUES, SAMPLES, SLOT_BITS, STRIDE } from './block-layout';

/** A value's slot by Fibonacci hashing, as a sample of up to 24 bits. */
function slotOf(value: f64): usize {
  // No sample is as large; a float may be.
  const whole = <i32>Math.min(Math.floor(value * 16777216 + 0.5), 2147483647);
  return <usize>((<u32>(whole * <i32>0x9e3779b1)) >> (32 - SLOT_BITS));
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
    const from = s * STRIDE;
    let i = from;
    while (i < from + STRIDE && load<f64>(SAMPLES + ((<usize>i) << 3)) != top) i++;
    const at = start + <f64>i;
    const slot = slotOf(top) << 3;
    const lag = at - load<f64>(PEAK_PLACES + slot);
    if (load<f64>(PEAK_VALUES + slot) == top && lag > reach && lag <= longest) {
      store<f64>(out, at);
      store<f64>(out, lag, 8);
      out += 16;
    }
    store<f64>(PEAK_PLACES + slot, at);
    store<f64>(PEAK_VALUES + slot, top);
  }
  return <i32>((out - CANDIDATES) >> 4);
}
