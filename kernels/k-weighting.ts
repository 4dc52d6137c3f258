// Sum, sum of squares, and sum of squares after K-weighting of a stretch of samples. K_COEFFICIENTS, in doubles:
// b0 b1 b2 a1 a2 of the shelf; b0 a1 a2 of the high-pass, whose numerator is b0, −2·b0, b0. K_STATE: the four states of
// both (transposed direct form II).
import { K_COEFFICIENTS, K_RESULTS, K_STATE, SAMPLES } from './block-layout';

/** Takes samples `from` … `to` − 1 of the block; the results are those of this stretch alone. */
export function accumulate(from: i32, to: i32): void {
  const b0 = load<f64>(K_COEFFICIENTS);
  const b1 = load<f64>(K_COEFFICIENTS, 8);
  const b2 = load<f64>(K_COEFFICIENTS, 16);
  const a1 = load<f64>(K_COEFFICIENTS, 24);
  const a2 = load<f64>(K_COEFFICIENTS, 32);
  const d = load<f64>(K_COEFFICIENTS, 40);
  const c1 = load<f64>(K_COEFFICIENTS, 48);
  const c2 = load<f64>(K_COEFFICIENTS, 56);
  let z1 = load<f64>(K_STATE);
  let z2 = load<f64>(K_STATE, 8);
  let w1 = load<f64>(K_STATE, 16);
  let w2 = load<f64>(K_STATE, 24);
  let sum: f64 = 0;
  let plain: f64 = 0;
  let weighted: f64 = 0;
  const end: usize = SAMPLES + ((<usize>to) << 3);
  for (let at: usize = SAMPLES + ((<usize>from) << 3); at < end; at += 8) {
    const x = load<f64>(at);
    sum += x;
    plain += x * x;
    const y = b0 * x + z1;
    z1 = b1 * x + z2 - a1 * y;
    z2 = b2 * x - a2 * y;
    const u = d * y;
    const v = u + w1;
    w1 = w2 - 2 * u - c1 * v;
    w2 = u - c2 * v;
    weighted += v * v;
  }
  store<f64>(K_STATE, z1);
  store<f64>(K_STATE, z2, 8);
  store<f64>(K_STATE, w1, 16);
  store<f64>(K_STATE, w2, 24);
  store<f64>(K_RESULTS, sum);
  store<f64>(K_RESULTS, plain, 8);
  store<f64>(K_RESULTS, weighted, 16);
}
