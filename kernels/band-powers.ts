// What Welch's method makes of a transform: the powers of two frames, and of each frame the sums that are kept.
//
// From where layOut is told to begin, in doubles: powers of both frames, weights per bin, and the sum of the powers of
// all frames (n/2 each, with a gap behind each); 64 ranges of bins (first, last, share of the first, share of the last), and the sum of
// each range with room for one more.
const MOST_RANGES: usize = 64;
let half: usize = 0,
  PA: usize = 0,
  PB: usize = 0,
  WEIGHTS: usize = 0,
  TOTALS: usize = 0,
  RANGES: usize = 0,
  SUMS: usize = 0;

/** Returns where what is laid out ends. */
export function layOut(size: i32, from: usize, gap: usize): usize {
  half = (<usize>size) << 2;
  PA = from;
  PB = PA + half + gap;
  WEIGHTS = PB + half + gap;
  TOTALS = WEIGHTS + half + gap;
  RANGES = TOTALS + half + gap;
  SUMS = RANGES + MOST_RANGES * 32;
  return SUMS + (MOST_RANGES + 1) * 8;
}

/** With z = a + i·b, the spectra are A = (Z[k] + Z*[n−k])/2 and B = (Z[k] − Z*[n−k])/2i. */
export function pairPowers(re: usize, im: usize, n: i32, quarter: f64): void {
  const bytes: usize = (<usize>n) << 3;
  const scale = f64x2.splat(quarter);
  // Bins k and k + 1, and n − k with n − k − 1 turned round; what bin 0 becomes of it has no meaning.
  for (let k: usize = 0; k < half; k += 16) {
    const r = v128.load(re + k),
      m = v128.load(im + k);
    const back = v128.load(re + bytes - k - 8),
      backM = v128.load(im + bytes - k - 8);
    const rm = v128.shuffle<f64>(back, back, 1, 0),
      mm = v128.shuffle<f64>(backM, backM, 1, 0);
    const ar = f64x2.add(r, rm),
      ai = f64x2.sub(m, mm),
      br = f64x2.sub(r, rm),
      bi = f64x2.add(m, mm);
    v128.store(PA + k, f64x2.mul(f64x2.add(f64x2.mul(ar, ar), f64x2.mul(ai, ai)), scale));
    v128.store(PB + k, f64x2.mul(f64x2.add(f64x2.mul(br, br), f64x2.mul(bi, bi)), scale));
  }
  store<f64>(PA, 0);
  store<f64>(PB, 0);
}

/** Sum of the doubles from `at` up to `end`, two sums of two side by side. */
function sum(at: usize, end: usize): f64 {
  let a = f64x2.splat(0),
    b = f64x2.splat(0);
  for (; at + 32 <= end; at += 32) {
    a = f64x2.add(a, v128.load(at));
    b = f64x2.add(b, v128.load(at, 16));
  }
  a = f64x2.add(a, b);
  let rest: f64 = 0;
  for (; at < end; at += 8) rest += load<f64>(at);
  return f64x2.extract_lane(a, 0) + f64x2.extract_lane(a, 1) + rest;
}

/** The same, each double times the one that stands `apart` bytes behind it. */
function weightedSum(at: usize, end: usize, apart: usize): f64 {
  let a = f64x2.splat(0);
  for (; at + 16 <= end; at += 16) a = f64x2.add(a, f64x2.mul(v128.load(at), v128.load(at + apart)));
  let rest: f64 = 0;
  for (; at < end; at += 8) rest += load<f64>(at) * load<f64>(at + apart);
  return f64x2.extract_lane(a, 0) + f64x2.extract_lane(a, 1) + rest;
}

/**
 * Adds a frame's powers to the totals, and sums them over so many ranges (outer bins in part); of the last range also
 * under the weights, as one number more.
 */
export function frameSums(isSecond: bool, ranges: i32): void {
  const power = isSecond ? PB : PA;
  for (let k: usize = 0; k < half; k += 16) {
    v128.store(TOTALS + k, f64x2.add(v128.load(TOTALS + k), v128.load(power + k)));
  }
  for (let i = 0; i < ranges; i++) {
    const range = RANGES + <usize>i * 32;
    const from = power + ((<usize>load<f64>(range)) << 3);
    const to = power + ((<usize>load<f64>(range, 8)) << 3);
    const begin = load<f64>(range, 16) * load<f64>(from);
    const share = load<f64>(range, 24);
    const end = share > 0 ? share * load<f64>(to) : 0;
    const out = SUMS + ((<usize>i) << 3);
    store<f64>(out, begin + sum(from + 8, to) + end);
    if (i + 1 < ranges) continue;
    const apart = WEIGHTS - power;
    const edges = begin * load<f64>(from + apart) + (share > 0 ? end * load<f64>(to + apart) : 0);
    store<f64>(out, edges + weightedSum(from + 8, to, apart), 8);
  }
}
