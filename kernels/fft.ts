// AssemblyScript, compiled by `npm run kernels` into src/core/dsp/fft-kernel.ts.
//
// Complex forward FFT: Stockham's self-sorting radix-4 form (one radix-2 stage at the end where the exponent is odd), two
// doubles at a time (SIMD). JavaScript checks the bounds of every access to an array; this does not, which makes it four
// to six times as fast, and the spectrum is most of an analysis.
//
// Memory from 1024 on: two parts of 2n doubles, input and work, each followed by two gaps. The caller sees a part as n
// real parts and, behind a gap, n imaginary ones. Between two stages a part holds, for every two values, a vector of
// their real and one of their imaginary parts: half as many addresses to reckon. Without the gaps all that a butterfly
// reads and writes would stand in the same set of the first cache.
//
// Then the twiddle factors, for each stage in the order in which it reads them. The first takes two steps p at once:
// cos p, cos p + 1, sin p, sin p + 1, then those of 2p and 3p (1.5 n doubles); a later one of length L has cos and sin of
// p, 2p, 3p side by side, p = 0 … L/4 − 1. Behind them what pairs of frames need (band-powers.ts), where it was asked
// for: the first table of a quarter of the size, window, samples. The caller fills tables and input.
import { layOut, pairPowers } from './band-powers';
export { frameSums } from './band-powers';

/** Bytes: an odd number of cache lines. */
export const GAP: usize = 9 * 64;

let n: i32 = 0;
let INPUT: usize = 0,
  WORK: usize = 0,
  /** Bytes from a real part to its imaginary one, where they stand apart. */
  APART: usize = 0,
  FIRST: usize = 0,
  LATER: usize = 0,
  QUARTER_FIRST: usize = 0,
  WINDOW: usize = 0,
  SAMPLES: usize = 0;

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
  INPUT = 1024;
  APART = bytes + GAP;
  WORK = INPUT + 2 * APART;
  FIRST = WORK + 2 * APART;
  LATER = FIRST + 6 * (bytes >> 2);
  reserve(LATER + ((<usize>laterTables(size)) << 3));
  return INPUT;
}

/**
 * The same (64 or more) with room for pairs of frames behind it; returns where that begins: the first table of a
 * quarter of the size, then the window.
 */
export function planFrames(size: i32): usize {
  plan(size);
  const bytes: usize = (<usize>size) << 3;
  QUARTER_FIRST = LATER + ((<usize>laterTables(size)) << 3);
  WINDOW = QUARTER_FIRST + 6 * (bytes >> 4);
  SAMPLES = WINDOW + bytes + GAP;
  reserve(layOut(size, SAMPLES + 2 * bytes + GAP, GAP));
  return QUARTER_FIRST;
}

function mulRe(ar: v128, ai: v128, c: v128, s: v128): v128 {
  return f64x2.sub(f64x2.mul(ar, c), f64x2.mul(ai, s));
}
function mulIm(ar: v128, ai: v128, c: v128, s: v128): v128 {
  return f64x2.add(f64x2.mul(ar, s), f64x2.mul(ai, c));
}

/** Two values stand as a vector of real parts beside one of imaginary parts, or in two places apart. */
type Beside = f64;
type Apart = i32;
/** Apart, too: of two frames, which are windowed on the way in. */
type Frames = i64;

function im<T>(at: usize, apart: usize): v128 {
  return isFloat<T>() ? v128.load(at, 16) : v128.load(at + apart);
}
function put<T>(at: usize, re: v128, im: v128): void {
  v128.store(at, re);
  if (isFloat<T>()) v128.store(at, im, 16);
  else v128.store(at + APART, im);
}

/**
 * The first stage has a stride of one: results of two groups are interleaved by shuffles. Of frames the four results
 * stand in four quarters instead, each a transform of its own.
 *
 * Addresses are sums of as few numbers as can be, and what does not change in a loop is a parameter: the compiler behind
 * WebAssembly moves nothing out of a loop.
 *
 * @param jump - bytes from one of the four values of a butterfly to the next, in x
 * @param apart - from real to imaginary parts, where they do not stand side by side
 * @param window - from samples to their window
 * @param quarter - from one of the four results to the next, in y, where they stand in quarters
 * @param factors - twiddle factors
 * @param end - where they end
 */
function first<T>(
  x: usize,
  jump: usize,
  apart: usize,
  window: usize,
  y: usize,
  quarter: usize,
  factors: usize,
  end: usize,
): void {
  let i: usize = x,
    o: usize = y;
  for (let table = factors; table < end; table += 96) {
    const b: usize = i + jump,
      c: usize = i + 2 * jump,
      d: usize = b + 2 * jump;
    let ar = v128.load(i),
      ai = im<T>(i, apart),
      cr = v128.load(c),
      ci = im<T>(c, apart);
    let br = v128.load(b),
      bi = im<T>(b, apart),
      dr = v128.load(d),
      di = im<T>(d, apart);
    if (isInteger<T>() && sizeof<T>() == 8) {
      const wa = v128.load(i + window),
        wb = v128.load(b + window),
        wc = v128.load(c + window),
        wd = v128.load(d + window);
      ar = f64x2.mul(ar, wa);
      ai = f64x2.mul(ai, wa);
      br = f64x2.mul(br, wb);
      bi = f64x2.mul(bi, wb);
      cr = f64x2.mul(cr, wc);
      ci = f64x2.mul(ci, wc);
      dr = f64x2.mul(dr, wd);
      di = f64x2.mul(di, wd);
    }
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
    if (isInteger<T>() && sizeof<T>() == 8) {
      const o2: usize = o + 2 * quarter;
      put<Beside>(o, o0r, o0i);
      put<Beside>(o + quarter, o1r, o1i);
      put<Beside>(o2, o2r, o2i);
      put<Beside>(o2 + quarter, o3r, o3i);
      o += 32;
    } else {
      v128.store(o, v128.shuffle<f64>(o0r, o1r, 0, 2));
      v128.store(o, v128.shuffle<f64>(o0i, o1i, 0, 2), 16);
      v128.store(o, v128.shuffle<f64>(o2r, o3r, 0, 2), 32);
      v128.store(o, v128.shuffle<f64>(o2i, o3i, 0, 2), 48);
      v128.store(o, v128.shuffle<f64>(o0r, o1r, 1, 3), 64);
      v128.store(o, v128.shuffle<f64>(o0i, o1i, 1, 3), 80);
      v128.store(o, v128.shuffle<f64>(o2r, o3r, 1, 3), 96);
      v128.store(o, v128.shuffle<f64>(o2i, o3i, 1, 3), 112);
      o += 128;
    }
    i += isFloat<T>() ? 32 : 16;
  }
}

/**
 * A stage between, or the last.
 *
 * @param jump - bytes from one of the four values of a butterfly to the next, in x
 * @param stride - bytes of a stride
 * @param factors - twiddle factors
 * @param end - where they end
 */
function stage<T>(x: usize, y: usize, jump: usize, stride: usize, factors: usize, end: usize): void {
  // Where real and imaginary parts stand apart, places are half as far from each other.
  const across: usize = isFloat<T>() ? stride : stride >> 1;
  let i: usize = x,
    o: usize = y;
  for (let k = factors; k < end; k += 48, o += 3 * across) {
    const c1 = v128.load64_splat(k),
      s1 = v128.load64_splat(k, 8),
      c2 = v128.load64_splat(k, 16),
      s2 = v128.load64_splat(k, 24),
      c3 = v128.load64_splat(k, 32),
      s3 = v128.load64_splat(k, 40);
    const stop: usize = i + stride;
    for (; i < stop; i += 32, o += isFloat<T>() ? 32 : 16) {
      const b: usize = i + jump,
        c: usize = i + 2 * jump,
        d: usize = b + 2 * jump;
      const ar = v128.load(i),
        ai = v128.load(i, 16),
        cr = v128.load(c),
        ci = v128.load(c, 16);
      const t0r = f64x2.add(ar, cr),
        t0i = f64x2.add(ai, ci),
        t1r = f64x2.sub(ar, cr),
        t1i = f64x2.sub(ai, ci);
      const br = v128.load(b),
        bi = v128.load(b, 16),
        dr = v128.load(d),
        di = v128.load(d, 16);
      const t2r = f64x2.add(br, dr),
        t2i = f64x2.add(bi, di),
        t3r = f64x2.sub(bi, di),
        t3i = f64x2.sub(dr, br);
      put<T>(o, f64x2.add(t0r, t2r), f64x2.add(t0i, t2i));
      const vr = f64x2.sub(t0r, t2r),
        vi = f64x2.sub(t0i, t2i);
      const o2: usize = o + 2 * across;
      put<T>(o2, mulRe(vr, vi, c2, s2), mulIm(vr, vi, c2, s2));
      const ur = f64x2.add(t1r, t3r),
        ui = f64x2.add(t1i, t3i);
      put<T>(o + across, mulRe(ur, ui, c1, s1), mulIm(ur, ui, c1, s1));
      const wr = f64x2.sub(t1r, t3r),
        wi = f64x2.sub(t1i, t3i);
      put<T>(o2 + across, mulRe(wr, wi, c3, s3), mulIm(wr, wi, c3, s3));
    }
  }
}

/** Two values after each other, half the size apart. */
function radix2<T>(x: usize, y: usize, half: usize): void {
  const across: usize = isFloat<T>() ? half : half >> 1;
  let o: usize = y;
  for (let i: usize = x; i < x + half; i += 32, o += isFloat<T>() ? 32 : 16) {
    const b: usize = i + half;
    const ar = v128.load(i),
      ai = v128.load(i, 16),
      br = v128.load(b),
      bi = v128.load(b, 16);
    put<T>(o, f64x2.add(ar, br), f64x2.add(ai, bi));
    put<T>(o + across, f64x2.sub(ar, br), f64x2.sub(ai, bi));
  }
}
/** Where the real parts of a result begin: stages swap input and work, so it depends on their number. */
export function resultAt(): usize {
  let inWork = true;
  for (let length = n >> 2; length > 1; length >>= 2) inWork = !inWork;
  return inWork ? WORK : INPUT;
}

/**
 * All stages but the first, whose results stand in one of two parts; returns where those of the last one stand, its real
 * and imaginary parts apart or as vectors side by side.
 */
function further<T>(size: i32, from: usize, other: usize, factors: usize): usize {
  // Values stand a quarter of all apart in every stage.
  const jump: usize = (<usize>size) << 2;
  let x = from,
    y = other;
  let table = factors;
  let stride: usize = 64;
  for (let length = size >> 2; length > 1; length >>= 2, stride <<= 2) {
    const end = table + <usize>(length >> 2) * 48;
    if (length == 2) radix2<T>(x, y, stride);
    else if (length == 4) stage<T>(x, y, jump, stride, table, end);
    else stage<Beside>(x, y, jump, stride, table, end);
    table = end;
    const t = x;
    x = y;
    y = t;
  }
  return x;
}

/** Transforms the input; the real parts of the result begin at resultAt(), the imaginary ones following. */
export function forward(): void {
  first<Apart>(INPUT, (<usize>n) << 1, APART, 0, WORK, 0, FIRST, LATER);
  further<Apart>(n, WORK, INPUT, LATER);
}

/**
 * Powers of two successive frames, which go through one transform as its real and its imaginary part: windowed
 * samples in, |A|² and |B|² times a quarter of the scale out, bins 1 … n/2 − 1 (bin 0 is 0). The second frame begins
 * `step` samples (an even number) after the first.
 */
export function framePair(scale: f64, step: i32): void {
  const size = n >> 2;
  const bytes: usize = (<usize>size) << 4;
  first<Frames>(SAMPLES, (<usize>n) << 1, (<usize>step) << 3, WINDOW - SAMPLES, INPUT, bytes, FIRST, LATER);
  const later = LATER + <usize>(size >> 2) * 48;
  let result: usize = 0;
  for (let r: usize = 0; r < 4; r++) {
    const quarter = INPUT + r * bytes;
    const work = WORK + r * bytes;
    first<Beside>(quarter, bytes >> 2, 0, 0, work, 0, QUARTER_FIRST, WINDOW);
    const end = further<Beside>(size, work, quarter, later);
    if (r == 0) result = end;
  }
  pairPowers(result, bytes, scale / 4);
}
