// Sum, sum of squares, and sum of squares after K-weighting of a stretch of samples. K_COEFFICIENTS, in doubles:
// b0 b1 b2 a1 a2 of the shelf; b0 a1 a2 of the high-pass, whose numerator is b0, −2·b0, b0. K_STATE: the four states of
// both (transposed direct form II).
//
// A sample has to wait for the one before it, which makes a recursive filter slow whatever else the processor could do.
// So both filters run side by side, the high-pass two samples behind the shelf, and each takes two samples at a time:
// with inputs x, x' and states z1, z2 the outputs are
//   y  = b0·x + z1
//   y' = b0·x' + d1·x + z2 − a1·z1            d1 = b1 − a1·b0, d2 = b2 − a2·b0
// and the next states
//   z1″ = d1·x' + (d2 − a1·d1)·x + (a1² − a2)·z1 − a1·z2
//   z2″ = d2·x' − a2·d1·x + a1·a2·z1 − a2·z2
// K_PAIRS, of the shelf and of the high-pass side by side: a1, a2, b0, d1, d2, d2 − a1·d1, a2·d1, a1·a2, a1² − a2.
import { K_COEFFICIENTS, K_PAIRS, K_RESULTS, K_STATE, SAMPLES } from './block-layout';

/** The number of the shelf, and that of the high-pass. */
function both(shelf: f64, highPass: f64): v128 {
  return f64x2.replace_lane(f64x2.splat(shelf), 1, highPass);
}

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
  let at: usize = SAMPLES + ((<usize>from) << 3);
  const end: usize = SAMPLES + ((<usize>to) << 3);
  const paired: usize = at + (((<usize>(to - from)) >> 1) << 4);
  if (at < paired) {
    // The shelf goes ahead by one pair.
    let x = load<f64>(at),
      xx = load<f64>(at, 8);
    let y = b0 * x + z1;
    z1 = b1 * x + z2 - a1 * y;
    z2 = b2 * x - a2 * y;
    let yy = b0 * xx + z1;
    z1 = b1 * xx + z2 - a1 * yy;
    z2 = b2 * xx - a2 * yy;
    const first = v128.load(at);
    at += 16;

    // They are read, not reckoned: the compiler behind WebAssembly would reckon them anew in every round.
    const A1 = v128.load(K_PAIRS),
      A2 = v128.load(K_PAIRS, 16),
      B0 = v128.load(K_PAIRS, 32),
      D1 = v128.load(K_PAIRS, 48),
      D2 = v128.load(K_PAIRS, 64),
      E = v128.load(K_PAIRS, 80),
      F = v128.load(K_PAIRS, 96),
      G = v128.load(K_PAIRS, 112),
      P = v128.load(K_PAIRS, 128);
    let Z1 = both(z1, w1),
      Z2 = both(z2, w2),
      Y = f64x2.splat(y),
      YY = f64x2.splat(yy);
    let sums = first,
      squares = f64x2.mul(first, first),
      after = f64x2.splat(0);
    for (; at < paired; at += 16) {
      const pair = v128.load(at);
      sums = f64x2.add(sums, pair);
      squares = f64x2.add(squares, f64x2.mul(pair, pair));
      const X = v128.shuffle<f64>(pair, Y, 0, 2),
        XX = v128.shuffle<f64>(pair, YY, 1, 2);
      Y = f64x2.add(f64x2.mul(B0, X), Z1);
      YY = f64x2.add(f64x2.add(f64x2.mul(B0, XX), f64x2.mul(D1, X)), f64x2.sub(Z2, f64x2.mul(A1, Z1)));
      after = f64x2.add(after, f64x2.add(f64x2.mul(Y, Y), f64x2.mul(YY, YY)));
      const next = f64x2.add(
        f64x2.add(f64x2.mul(D1, XX), f64x2.mul(E, X)),
        f64x2.sub(f64x2.mul(P, Z1), f64x2.mul(A1, Z2)),
      );
      Z2 = f64x2.add(f64x2.sub(f64x2.mul(D2, XX), f64x2.mul(F, X)), f64x2.sub(f64x2.mul(G, Z1), f64x2.mul(A2, Z2)));
      Z1 = next;
    }
    sum = f64x2.extract_lane(sums, 0) + f64x2.extract_lane(sums, 1);
    plain = f64x2.extract_lane(squares, 0) + f64x2.extract_lane(squares, 1);
    weighted = f64x2.extract_lane(after, 1);
    z1 = f64x2.extract_lane(Z1, 0);
    z2 = f64x2.extract_lane(Z2, 0);
    w1 = f64x2.extract_lane(Z1, 1);
    w2 = f64x2.extract_lane(Z2, 1);
    // The high-pass catches up.
    y = f64x2.extract_lane(Y, 0);
    yy = f64x2.extract_lane(YY, 0);
    let v = d * y + w1;
    w1 = w2 - 2 * d * y - c1 * v;
    w2 = d * y - c2 * v;
    weighted += v * v;
    v = d * yy + w1;
    w1 = w2 - 2 * d * yy - c1 * v;
    w2 = d * yy - c2 * v;
    weighted += v * v;
  }
  if (at < end) {
    const x = load<f64>(at);
    const y = b0 * x + z1;
    z1 = b1 * x + z2 - a1 * y;
    z2 = b2 * x - a2 * y;
    const v = d * y + w1;
    w1 = w2 - 2 * d * y - c1 * v;
    w2 = d * y - c2 * v;
    sum += x;
    plain += x * x;
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
