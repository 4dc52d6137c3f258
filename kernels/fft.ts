// AssemblyScript, compiled by `npm run kernels` into src/core/dsp/fft-kernel.ts.
//
// Complex forward FFT: Stockham's self-sorting radix-4 form (one radix-2 stage at the end where the exponent is odd)
// on separate real and imaginary parts, two doubles at a time (SIMD). JavaScript checks the bounds of every access to
// an array; this does not, which makes it four to six times as fast, and the spectrum is most of an analysis.
//
// Memory from 1024 on, n doubles each, and a gap behind each: real in, imaginary in, real work, imaginary work. Without
// the gaps all that a butterfly reads and writes would stand in the same set of the first cache. Then the twiddle
// factors, for each stage in the order in which it reads them. The first takes two steps p at once: cos p, cos p + 1,
// sin p, sin p + 1, then those of 2p and 3p (1.5 n doubles); a later one of length L has cos and sin of p, 2p, 3p side by
// side, p = 0 … L/4 − 1. Behind them what Welch's method needs (band-powers.ts), where it was asked for. The caller fills
// tables and input.
import { layOut, pairPowers } from './band-powers';
export { frameSums } from './band-powers';

/** Bytes: an odd number of cache lines. */
export const GAP: usize = 9 * 64;

let n: i32 = 0;
let RE: usize = 0,
  IM: usize = 0,
  WR: usize = 0,
  WI: usize = 0,
  FIRST: usize = 0,
  LATER: usize = 0,
  WIN: usize = 0,
  SAM: usize = 0;

/** Makes room; what a memory holds is never moved. */
function reserve(end: usize): void {
  const pages: i32 = <i32>((end + 65535) >> 16);
  if (memory.size() < pages) memory.grow(pages - memory.size());
}

/** Doubles of the tables of the later stages. */
export function laterTables(size: i32): i32 {
  let doubles = 0;
  for (let length = size >> 2; length > 2; length >>= 2) doubles += 6 * (length >> 2);
  return doubles;
}

/** Lays out memory for a size (a power of two, 16 or more); returns where it begins. */
export function plan(size: i32): usize {
  n = size;
  const bytes: usize = (<usize>size) << 3;
  RE = 1024;
  IM = RE + bytes + GAP;
  WR = IM + bytes + GAP;
  WI = WR + bytes + GAP;
  FIRST = WI + bytes + GAP;
  LATER = FIRST + 6 * (bytes >> 2);
  reserve(LATER + ((<usize>laterTables(size)) << 3));
  return RE;
}

/** The same with room for pairs of frames behind it; returns where that begins. */
export function planFrames(size: i32): usize {
  plan(size);
  const bytes: usize = (<usize>size) << 3;
  WIN = LATER + ((<usize>laterTables(size)) << 3);
  SAM = WIN + bytes + GAP;
  reserve(layOut(size, SAM + 2 * bytes + GAP, GAP));
  return WIN;
}

function mulRe(ar: v128, ai: v128, c: v128, s: v128): v128 {
  return f64x2.sub(f64x2.mul(ar, c), f64x2.mul(ai, s));
}
function mulIm(ar: v128, ai: v128, c: v128, s: v128): v128 {
  return f64x2.add(f64x2.mul(ar, s), f64x2.mul(ai, c));
}

/** Two samples of a part; WIN has as many. */
function input<T>(at: usize, inWindow: usize): v128 {
  return isFloat<T>() ? f64x2.mul(v128.load(at), v128.load(WIN + inWindow)) : v128.load(at);
}

/**
 * The first stage has a stride of one: results of two groups are interleaved by shuffles. It takes its input as it
 * stands (T = i32), or windows the two frames on the way in (T = f64).
 */
function first<T>(xr: usize, xi: usize, yr: usize, yi: usize): void {
  const q: usize = ((<usize>n) >> 2) << 3; // bytes of a quarter
  let table = FIRST;
  for (let p: usize = 0; p < q; p += 16, table += 96) {
    const ar = input<T>(xr + p, p),
      ai = input<T>(xi + p, p);
    const br = input<T>(xr + p + q, p + q),
      bi = input<T>(xi + p + q, p + q);
    const cr = input<T>(xr + p + 2 * q, p + 2 * q),
      ci = input<T>(xi + p + 2 * q, p + 2 * q);
    const dr = input<T>(xr + p + 3 * q, p + 3 * q),
      di = input<T>(xi + p + 3 * q, p + 3 * q);
    const t0r = f64x2.add(ar, cr),
      t0i = f64x2.add(ai, ci),
      t1r = f64x2.sub(ar, cr),
      t1i = f64x2.sub(ai, ci);
    const t2r = f64x2.add(br, dr),
      t2i = f64x2.add(bi, di),
      t3r = f64x2.sub(bi, di),
      t3i = f64x2.sub(dr, br);
    const o0r = f64x2.add(t0r, t2r),
      o0i = f64x2.add(t0i, t2i);
    const ur = f64x2.add(t1r, t3r),
      ui = f64x2.add(t1i, t3i);
    const vr = f64x2.sub(t0r, t2r),
      vi = f64x2.sub(t0i, t2i);
    const wr = f64x2.sub(t1r, t3r),
      wi = f64x2.sub(t1i, t3i);
    const c1 = v128.load(table),
      s1 = v128.load(table, 16),
      c2 = v128.load(table, 32),
      s2 = v128.load(table, 48),
      c3 = v128.load(table, 64),
      s3 = v128.load(table, 80);
    const o1r = mulRe(ur, ui, c1, s1),
      o1i = mulIm(ur, ui, c1, s1);
    const o2r = mulRe(vr, vi, c2, s2),
      o2i = mulIm(vr, vi, c2, s2);
    const o3r = mulRe(wr, wi, c3, s3),
      o3i = mulIm(wr, wi, c3, s3);
    const o: usize = p << 2;
    v128.store(yr + o, v128.shuffle<f64>(o0r, o1r, 0, 2));
    v128.store(yr + o + 16, v128.shuffle<f64>(o2r, o3r, 0, 2));
    v128.store(yr + o + 32, v128.shuffle<f64>(o0r, o1r, 1, 3));
    v128.store(yr + o + 48, v128.shuffle<f64>(o2r, o3r, 1, 3));
    v128.store(yi + o, v128.shuffle<f64>(o0i, o1i, 0, 2));
    v128.store(yi + o + 16, v128.shuffle<f64>(o2i, o3i, 0, 2));
    v128.store(yi + o + 32, v128.shuffle<f64>(o0i, o1i, 1, 3));
    v128.store(yi + o + 48, v128.shuffle<f64>(o2i, o3i, 1, 3));
  }
}
function stage(xr: usize, xi: usize, yr: usize, yi: usize, length: i32, stride: i32, table: usize): void {
  const quarter = length >> 2;
  const sb: usize = (<usize>stride) << 3;
  const jump: usize = sb * quarter;
  for (let p = 0; p < quarter; p++) {
    const k: usize = table + <usize>p * 48;
    const c1 = v128.load64_splat(k),
      s1 = v128.load64_splat(k, 8),
      c2 = v128.load64_splat(k, 16),
      s2 = v128.load64_splat(k, 24),
      c3 = v128.load64_splat(k, 32),
      s3 = v128.load64_splat(k, 40);
    const from: usize = sb * p;
    const end: usize = from + sb;
    let o: usize = from << 2;
    for (let i: usize = from; i < end; i += 16, o += 16) {
      const ar = v128.load(xr + i),
        ai = v128.load(xi + i);
      const br = v128.load(xr + i + jump),
        bi = v128.load(xi + i + jump);
      const cr = v128.load(xr + i + 2 * jump),
        ci = v128.load(xi + i + 2 * jump);
      const dr = v128.load(xr + i + 3 * jump),
        di = v128.load(xi + i + 3 * jump);
      const t0r = f64x2.add(ar, cr),
        t0i = f64x2.add(ai, ci),
        t1r = f64x2.sub(ar, cr),
        t1i = f64x2.sub(ai, ci);
      const t2r = f64x2.add(br, dr),
        t2i = f64x2.add(bi, di),
        t3r = f64x2.sub(bi, di),
        t3i = f64x2.sub(dr, br);
      v128.store(yr + o, f64x2.add(t0r, t2r));
      v128.store(yi + o, f64x2.add(t0i, t2i));
      const ur = f64x2.add(t1r, t3r),
        ui = f64x2.add(t1i, t3i);
      v128.store(yr + o + sb, mulRe(ur, ui, c1, s1));
      v128.store(yi + o + sb, mulIm(ur, ui, c1, s1));
      const vr = f64x2.sub(t0r, t2r),
        vi = f64x2.sub(t0i, t2i);
      v128.store(yr + o + 2 * sb, mulRe(vr, vi, c2, s2));
      v128.store(yi + o + 2 * sb, mulIm(vr, vi, c2, s2));
      const wr = f64x2.sub(t1r, t3r),
        wi = f64x2.sub(t1i, t3i);
      v128.store(yr + o + 3 * sb, mulRe(wr, wi, c3, s3));
      v128.store(yi + o + 3 * sb, mulIm(wr, wi, c3, s3));
    }
  }
}
function radix2(xr: usize, xi: usize, yr: usize, yi: usize, stride: i32): void {
  const sb: usize = (<usize>stride) << 3;
  for (let i: usize = 0; i < sb; i += 16) {
    const ar = v128.load(xr + i),
      ai = v128.load(xi + i),
      br = v128.load(xr + i + sb),
      bi = v128.load(xi + i + sb);
    v128.store(yr + i, f64x2.add(ar, br));
    v128.store(yi + i, f64x2.add(ai, bi));
    v128.store(yr + i + sb, f64x2.sub(ar, br));
    v128.store(yi + i + sb, f64x2.sub(ai, bi));
  }
}
/** Where the real parts of a result begin: stages swap input and work, so it depends on their number. */
export function resultAt(): usize {
  let inWork = true;
  for (let length = n >> 2; length > 1; length >>= 2) inWork = !inWork;
  return inWork ? WR : RE;
}

/** All stages but the first, whose results stand in the work parts; returns where the real parts of the result begin. */
function further(): usize {
  let ar = WR,
    ai = WI,
    br = RE,
    bi = IM;
  let table = LATER;
  let stride = 4;
  for (let length = n >> 2; length > 1; length >>= 2) {
    if (length == 2) {
      radix2(ar, ai, br, bi, stride);
    } else {
      stage(ar, ai, br, bi, length, stride, table);
      table += <usize>(length >> 2) * 48;
      stride <<= 2;
    }
    let t = ar;
    ar = br;
    br = t;
    t = ai;
    ai = bi;
    bi = t;
  }
  return ar;
}

/** Transforms the input; the real parts of the result begin at resultAt(), the imaginary ones following. */
export function forward(): void {
  first<i32>(RE, IM, WR, WI);
  further();
}

/**
 * Powers of two successive frames, which go through one transform as its real and its imaginary part: windowed
 * samples in, |A|² and |B|² times a quarter of the scale out, bins 1 … n/2 − 1 (bin 0 is 0). The second frame begins
 * `step` samples (an even number) after the first.
 */
export function framePair(scale: f64, step: i32): void {
  first<f64>(SAM, SAM + ((<usize>step) << 3), WR, WI);
  const re = further();
  pairPowers(re, re + ((<usize>n) << 3) + GAP, n, scale / 4);
}
