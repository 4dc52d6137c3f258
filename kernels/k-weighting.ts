// AssemblyScript, compiled by `npm run kernels` into src/core/dsp/k-weighting-kernel.ts.
//
// Sum, sum of squares, and sum of squares after K-weighting of a stretch of samples. Memory from 1024 on, in doubles:
// b0 b1 b2 a1 a2 of the shelf; b0 a1 a2 of the high-pass, whose numerator is b0, −2·b0, b0; the four states of both
// (transposed direct form II); the three results. The samples of a block follow at SAMPLES.

const AT: usize = 1024;
export const STATE: usize = AT + 8 * 8;
export const RESULTS: usize = STATE + 4 * 8;
export const SAMPLES: usize = RESULTS + 4 * 8;

/** Makes room for a block of so many samples. */
export function plan(samples: i32): void {
  const end: usize = SAMPLES + ((<usize>samples) << 3);
  const pages: i32 = <i32>((end + 65535) >> 16);
  if (memory.size() < pages) memory.grow(pages - memory.size());
}

/** Takes samples `from` … `to` − 1 of the block; the results are those of this stretch alone. */
export function accumulate(from: i32, to: i32): void {
  const b0 = load<f64>(AT);
  const b1 = load<f64>(AT + 8);
  const b2 = load<f64>(AT + 16);
  const a1 = load<f64>(AT + 24);
  const a2 = load<f64>(AT + 32);
  const d = load<f64>(AT + 40);
  const c1 = load<f64>(AT + 48);
  const c2 = load<f64>(AT + 56);
  let z1 = load<f64>(STATE);
  let z2 = load<f64>(STATE + 8);
  let w1 = load<f64>(STATE + 16);
  let w2 = load<f64>(STATE + 24);
  let sum: f64 = 0;
  let plain: f64 = 0;
  let weighted: f64 = 0;
  const end: usize = SAMPLES + ((<usize>to) << 3);
  for (let at: usize = SAMPLES + ((<usize>from) << 3); at < end; at += 8) {
    const x = load<f64>(at);
    sum += x;
    plain += x * x;
    const y = b0 * x + z1;
    z1 = b1 * x - a1 * y + z2;
    z2 = b2 * x - a2 * y;
    const u = d * y;
    const v = u + w1;
    w1 = w2 - 2 * u - c1 * v;
    w2 = u - c2 * v;
    weighted += v * v;
  }
  store<f64>(STATE, z1);
  store<f64>(STATE + 8, z2);
  store<f64>(STATE + 16, w1);
  store<f64>(STATE + 24, w2);
  store<f64>(RESULTS, sum);
  store<f64>(RESULTS + 8, plain);
  store<f64>(RESULTS + 16, weighted);
}
