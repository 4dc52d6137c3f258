// AssemblyScript, compiled by `npm run kernels` into src/core/dsp/true-peak-kernel.ts.
//
// The interpolator of ITU-R BS.1770-5 Annex 2 over a stretch of samples, two outputs at a time (SIMD), and the largest
// magnitude of what comes out. Memory from 1024 on: four phases of twelve coefficients, each written twice (so that a
// vector holds it in both lanes), then the window: eleven samples from before, and the block.

const COEFFICIENTS: usize = 1024;
const TAPS: i32 = 12;
export const WINDOW: usize = COEFFICIENTS + 4 * 12 * 16;

/** Makes room for a block of so many samples. */
export function plan(samples: i32): void {
  const end: usize = WINDOW + ((<usize>samples + 12) << 3);
  const pages: i32 = <i32>((end + 65535) >> 16);
  if (memory.size() < pages) memory.grow(pages - memory.size());
}

/** Largest magnitude of the outputs `from` … `to` − 1 (`to` rounded up to even), never less than `start`. */
export function largest(from: i32, to: i32, start: f64): f64 {
  let peak = f64x2.splat(start);
  const end: usize = WINDOW + ((<usize>to) << 3);
  for (let at: usize = WINDOW + ((<usize>from) << 3); at < end; at += 16) {
    for (let phase: usize = 0; phase < 4; phase++) {
      let c: usize = COEFFICIENTS + phase * 12 * 16;
      let x: usize = at + 11 * 8;
      let sum = f64x2.splat(0);
      for (let t = 0; t < TAPS; t++) {
        sum = f64x2.add(sum, f64x2.mul(v128.load(c), v128.load(x)));
        c += 16;
        x -= 8;
      }
      peak = f64x2.pmax(peak, f64x2.abs(sum));
    }
  }
  return Math.max(f64x2.extract_lane(peak, 0), f64x2.extract_lane(peak, 1));
}
