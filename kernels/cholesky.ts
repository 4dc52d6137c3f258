// AssemblyScript, compiled by `npm run kernels` into src/core/stats/cholesky-kernel.ts.
//
// Cholesky factor, its inverse transposed, and products with that. Everything is dot products of rows, four rows
// against one at a time, two doubles at a time (SIMD): the one row is loaded once, and eight sums do not wait for
// each other. JavaScript takes four to eight times as long over it.
//
// Memory from 1024 on: A (n × n), M (n × n), out (n × n), then a vector and its product (n each), in doubles, row by
// row. n is a multiple of four; the caller pads with the identity.
let n: i32 = 0;
let A: usize = 0,
  M: usize = 0,
  OUT: usize = 0,
  Z: usize = 0;

/** Lays out memory for a size (a multiple of four); returns where it begins. */
export function plan(size: i32): usize {
  n = size;
  const bytes: usize = (<usize>size * <usize>size) << 3;
  A = 1024;
  M = A + bytes;
  OUT = M + bytes;
  Z = OUT + bytes;
  const end: usize = Z + ((<usize>size) << 4);
  const pages: i32 = <i32>((end + 65535) >> 16);
  if (memory.size() < pages) memory.grow(pages - memory.size());
  return A;
}

let d0: f64 = 0,
  d1: f64 = 0,
  d2: f64 = 0,
  d3: f64 = 0;

function lanes(x: v128): f64 {
  return f64x2.extract_lane(x, 0) + f64x2.extract_lane(x, 1);
}

/** Dot products of one stretch with four stretches that lie `stride` bytes apart. */
function dot4(p: usize, q: usize, stride: usize, count: i32): void {
  let s0 = f64x2.splat(0),
    s1 = f64x2.splat(0),
    s2 = f64x2.splat(0),
    s3 = f64x2.splat(0);
  const q1 = q + stride,
    q2 = q1 + stride,
    q3 = q2 + stride;
  const whole: usize = (<usize>(count & ~1)) << 3;
  for (let k: usize = 0; k < whole; k += 16) {
    const x = v128.load(p + k);
    s0 = f64x2.add(s0, f64x2.mul(x, v128.load(q + k)));
    s1 = f64x2.add(s1, f64x2.mul(x, v128.load(q1 + k)));
    s2 = f64x2.add(s2, f64x2.mul(x, v128.load(q2 + k)));
    s3 = f64x2.add(s3, f64x2.mul(x, v128.load(q3 + k)));
  }
  d0 = lanes(s0);
  d1 = lanes(s1);
  d2 = lanes(s2);
  d3 = lanes(s3);
  if ((count & 1) != 0) {
    const x = load<f64>(p + whole);
    d0 += x * load<f64>(q + whole);
    d1 += x * load<f64>(q1 + whole);
    d2 += x * load<f64>(q2 + whole);
    d3 += x * load<f64>(q3 + whole);
  }
}

function at(base: usize, i: i32, j: i32): usize {
  return base + ((<usize>i * <usize>n + <usize>j) << 3);
}

/** A becomes L (lower triangle). Returns 0 where A is not positive definite. */
export function factor(): i32 {
  const stride: usize = (<usize>n) << 3;
  for (let i = 0; i < n; i += 4) {
    const row = at(A, i, 0);
    for (let j = 0; j < i; j++) {
      dot4(at(A, j, 0), row, stride, j);
      const d = load<f64>(at(A, j, j));
      store<f64>(at(A, i, j), (load<f64>(at(A, i, j)) - d0) / d);
      store<f64>(at(A, i + 1, j), (load<f64>(at(A, i + 1, j)) - d1) / d);
      store<f64>(at(A, i + 2, j), (load<f64>(at(A, i + 2, j)) - d2) / d);
      store<f64>(at(A, i + 3, j), (load<f64>(at(A, i + 3, j)) - d3) / d);
    }
    for (let j = i; j < i + 4; j++) {
      for (let r = j; r < i + 4; r++) {
        let s = load<f64>(at(A, r, j));
        for (let k = 0; k < j; k++) s -= load<f64>(at(A, j, k)) * load<f64>(at(A, r, k));
        if (r == j) {
          if (!(s > 0)) return 0;
          store<f64>(at(A, j, j), sqrt<f64>(s));
        } else store<f64>(at(A, r, j), s / load<f64>(at(A, j, j)));
      }
    }
  }
  return 1;
}

/** M becomes the inverse of L, transposed (upper triangle, zeros below). */
export function invert(): void {
  const stride: usize = (<usize>n) << 3;
  memory.fill(M, 0, <usize>n * stride);
  for (let i = 0; i < n; i++) {
    const d = load<f64>(at(A, i, i));
    for (let j = 0; j < i; j += 4) {
      dot4(at(A, i, j), at(M, j, j), stride, i - j);
      store<f64>(at(M, j, i), -d0 / d);
      if (j + 1 < i) store<f64>(at(M, j + 1, i), -d1 / d);
      if (j + 2 < i) store<f64>(at(M, j + 2, i), -d2 / d);
      if (j + 3 < i) store<f64>(at(M, j + 3, i), -d3 / d);
    }
    store<f64>(at(M, i, i), 1 / d);
  }
}

/** OUT becomes M Mᵀ, the inverse of what A was; symmetric. */
export function multiply(): void {
  const stride: usize = (<usize>n) << 3;
  for (let i = 0; i < n; i++) {
    for (let j = i & ~3; j < n; j += 4) {
      dot4(at(M, i, j), at(M, j, j), stride, n - j);
      store<f64>(at(OUT, i, j), d0);
      store<f64>(at(OUT, i, j + 1), d1);
      store<f64>(at(OUT, i, j + 2), d2);
      store<f64>(at(OUT, i, j + 3), d3);
      store<f64>(at(OUT, j, i), d0);
      store<f64>(at(OUT, j + 1, i), d1);
      store<f64>(at(OUT, j + 2, i), d2);
      store<f64>(at(OUT, j + 3, i), d3);
    }
  }
}

/** The vector after OUT times M, into the n doubles behind it. */
export function apply(): void {
  const stride: usize = (<usize>n) << 3;
  const out: usize = Z + stride;
  for (let i = 0; i < n; i += 4) {
    dot4(Z + ((<usize>i) << 3), at(M, i, i), stride, n - i);
    const p = out + ((<usize>i) << 3);
    store<f64>(p, d0);
    store<f64>(p + 8, d1);
    store<f64>(p + 16, d2);
    store<f64>(p + 24, d3);
  }
}
