// The stages of Stockham's self-sorting radix-4 transform (one radix-2 stage at the end where the exponent is odd), a
// vector of 16 bytes at a time (SIMD): two doubles, or four floats. What a function is of: T says where values stand, E
// is the type of a number (f64, f32).
//
// Between two stages a vector of real parts stands beside one of the imaginary parts of the same values: half as many
// addresses to reckon. Twiddle factors stand in the order in which they are read. The first stage takes as many steps p
// at once as a vector holds: their cosines, their sines, then those of 2p and 3p; a later one of length L has cos and sin
// of p, 2p, 3p side by side, p = 0 … L/4 − 1.

/** Bytes from a real part to its imaginary one, where they stand apart. */
let APART: usize = 0;
export function standApart(bytes: usize): void {
  APART = bytes;
}

/** So many numbers are in the tables of the later stages. */
export function laterFactors(size: i32): i32 {
  let numbers = 0;
  for (let length = size >> 2; length > 2; length >>= 2) numbers += 6 * (length >> 2);
  return numbers;
}

/** −sin of a step of the first quarter, which is a cosine of it, too. */
function sine(cosines: usize, at: usize, quarter: usize): f64 {
  return at == 0 ? 0 : -load<f64>(cosines + ((quarter - at) << 3));
}

/**
 * Fills the tables for a size from the cosines of −2πi·p/N, p = 0 … N/4 − 1 (doubles); the sines, and what turns further,
 * are the same numbers in another order. The later stages take every 4th, 16th … step of the first one.
 *
 * @param firstTable - of the first stage
 * @param later - of the later ones, 0 where none is wanted
 */
export function fillFactors<E>(cosines: usize, size: i32, firstTable: usize, later: usize): void {
  const quarter = (<usize>size) >> 2,
    lanes: usize = 16 / sizeof<E>();
  for (let p: usize = 0; p < quarter; p++) {
    let to = firstTable + (6 * (p - (p % lanes)) + (p % lanes)) * sizeof<E>();
    for (let r: usize = 1; r <= 3; r++, to += 32) {
      const turned: usize = r * p >= 2 * quarter ? 2 : r * p >= quarter ? 1 : 0;
      const at = r * p - turned * quarter;
      const cos = load<f64>(cosines + (at << 3)),
        sin = sine(cosines, at, quarter);
      store<E>(to, <E>(turned == 0 ? cos : turned == 1 ? sin : -cos));
      store<E>(to, <E>(turned == 0 ? sin : turned == 1 ? -cos : -sin), 16);
    }
  }
  if (later == 0) return;
  let to = later;
  for (let length = size >> 2, step: usize = 4; length > 2; length >>= 2, step <<= 2) {
    for (let p: usize = 0; p < quarter; p += step) {
      const from = firstTable + (6 * (p - (p % lanes)) + (p % lanes)) * sizeof<E>();
      for (let i: usize = 0; i < 6; i++, to += sizeof<E>()) store<E>(to, load<E>(from + 16 * i));
    }
  }
}

function mulRe<E>(ar: v128, ai: v128, c: v128, s: v128): v128 {
  return v128.sub<E>(v128.mul<E>(ar, c), v128.mul<E>(ai, s));
}
function mulIm<E>(ar: v128, ai: v128, c: v128, s: v128): v128 {
  return v128.add<E>(v128.mul<E>(ar, s), v128.mul<E>(ai, c));
}

/** A vector of real parts stands beside one of imaginary parts, or they stand in two places apart. */
export type Beside = f64;
export type Apart = i32;
/** Apart, too: of two frames, which are windowed on the way in. */
export type Frames = i64;

function im<T>(at: usize, apart: usize): v128 {
  return isFloat<T>() ? v128.load(at, 16) : v128.load(at + apart);
}
function put<T>(at: usize, re: v128, im: v128): void {
  v128.store(at, re);
  if (isFloat<T>()) v128.store(at, im, 16);
  else v128.store(at + APART, im);
}

/** Four vectors of four floats, their rows turned into columns, each `apart` bytes behind the one before. */
export function turned(to: usize, apart: usize, a: v128, b: v128, c: v128, d: v128): void {
  const low0 = v128.shuffle<f32>(a, b, 0, 4, 1, 5),
    low1 = v128.shuffle<f32>(c, d, 0, 4, 1, 5);
  const high0 = v128.shuffle<f32>(a, b, 2, 6, 3, 7),
    high1 = v128.shuffle<f32>(c, d, 2, 6, 3, 7);
  v128.store(to, v128.shuffle<f64>(low0, low1, 0, 2));
  v128.store(to + apart, v128.shuffle<f64>(low0, low1, 1, 3));
  v128.store(to + 2 * apart, v128.shuffle<f64>(high0, high1, 0, 2));
  v128.store(to + 3 * apart, v128.shuffle<f64>(high0, high1, 1, 3));
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
export function first<T, E>(
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
      ar = v128.mul<E>(ar, wa);
      ai = v128.mul<E>(ai, wa);
      br = v128.mul<E>(br, wb);
      bi = v128.mul<E>(bi, wb);
      cr = v128.mul<E>(cr, wc);
      ci = v128.mul<E>(ci, wc);
      dr = v128.mul<E>(dr, wd);
      di = v128.mul<E>(di, wd);
    }
    const t0r = v128.add<E>(ar, cr),
      t0i = v128.add<E>(ai, ci),
      t1r = v128.sub<E>(ar, cr),
      t1i = v128.sub<E>(ai, ci);
    const t2r = v128.add<E>(br, dr),
      t2i = v128.add<E>(bi, di),
      t3r = v128.sub<E>(bi, di),
      t3i = v128.sub<E>(dr, br);
    const o0r = v128.add<E>(t0r, t2r),
      o0i = v128.add<E>(t0i, t2i);
    const ur = v128.add<E>(t1r, t3r),
      ui = v128.add<E>(t1i, t3i);
    const vr = v128.sub<E>(t0r, t2r),
      vi = v128.sub<E>(t0i, t2i);
    const wr = v128.sub<E>(t1r, t3r),
      wi = v128.sub<E>(t1i, t3i);
    const c1 = v128.load(table),
      s1 = v128.load(table, 16),
      c2 = v128.load(table, 32),
      s2 = v128.load(table, 48),
      c3 = v128.load(table, 64),
      s3 = v128.load(table, 80);
    const o1r = mulRe<E>(ur, ui, c1, s1),
      o1i = mulIm<E>(ur, ui, c1, s1);
    const o2r = mulRe<E>(vr, vi, c2, s2),
      o2i = mulIm<E>(vr, vi, c2, s2);
    const o3r = mulRe<E>(wr, wi, c3, s3),
      o3i = mulIm<E>(wr, wi, c3, s3);
    if (isInteger<T>() && sizeof<T>() == 8) {
      const o2: usize = o + 2 * quarter;
      put<Beside>(o, o0r, o0i);
      put<Beside>(o + quarter, o1r, o1i);
      put<Beside>(o2, o2r, o2i);
      put<Beside>(o2 + quarter, o3r, o3i);
      o += 32;
    } else {
      if (sizeof<E>() == 8) {
        v128.store(o, v128.shuffle<f64>(o0r, o1r, 0, 2));
        v128.store(o, v128.shuffle<f64>(o0i, o1i, 0, 2), 16);
        v128.store(o, v128.shuffle<f64>(o2r, o3r, 0, 2), 32);
        v128.store(o, v128.shuffle<f64>(o2i, o3i, 0, 2), 48);
        v128.store(o, v128.shuffle<f64>(o0r, o1r, 1, 3), 64);
        v128.store(o, v128.shuffle<f64>(o0i, o1i, 1, 3), 80);
        v128.store(o, v128.shuffle<f64>(o2r, o3r, 1, 3), 96);
        v128.store(o, v128.shuffle<f64>(o2i, o3i, 1, 3), 112);
      } else {
        turned(o, 32, o0r, o1r, o2r, o3r);
        turned(o + 16, 32, o0i, o1i, o2i, o3i);
      }
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
function stage<T, E>(x: usize, y: usize, jump: usize, stride: usize, factors: usize, end: usize): void {
  // Where real and imaginary parts stand apart, places are half as far from each other.
  const across: usize = isFloat<T>() ? stride : stride >> 1;
  let i: usize = x,
    o: usize = y;
  for (let k = factors; k < end; k += 6 * sizeof<E>(), o += 3 * across) {
    const c1 = v128.load_splat<E>(k),
      s1 = v128.load_splat<E>(k, 1 * sizeof<E>()),
      c2 = v128.load_splat<E>(k, 2 * sizeof<E>()),
      s2 = v128.load_splat<E>(k, 3 * sizeof<E>()),
      c3 = v128.load_splat<E>(k, 4 * sizeof<E>()),
      s3 = v128.load_splat<E>(k, 5 * sizeof<E>());
    const stop: usize = i + stride;
    for (; i < stop; i += 32, o += isFloat<T>() ? 32 : 16) {
      const b: usize = i + jump,
        c: usize = i + 2 * jump,
        d: usize = b + 2 * jump;
      const ar = v128.load(i),
        ai = v128.load(i, 16),
        cr = v128.load(c),
        ci = v128.load(c, 16);
      const t0r = v128.add<E>(ar, cr),
        t0i = v128.add<E>(ai, ci),
        t1r = v128.sub<E>(ar, cr),
        t1i = v128.sub<E>(ai, ci);
      const br = v128.load(b),
        bi = v128.load(b, 16),
        dr = v128.load(d),
        di = v128.load(d, 16);
      const t2r = v128.add<E>(br, dr),
        t2i = v128.add<E>(bi, di),
        t3r = v128.sub<E>(bi, di),
        t3i = v128.sub<E>(dr, br);
      put<T>(o, v128.add<E>(t0r, t2r), v128.add<E>(t0i, t2i));
      const vr = v128.sub<E>(t0r, t2r),
        vi = v128.sub<E>(t0i, t2i);
      const o2: usize = o + 2 * across;
      put<T>(o2, mulRe<E>(vr, vi, c2, s2), mulIm<E>(vr, vi, c2, s2));
      const ur = v128.add<E>(t1r, t3r),
        ui = v128.add<E>(t1i, t3i);
      put<T>(o + across, mulRe<E>(ur, ui, c1, s1), mulIm<E>(ur, ui, c1, s1));
      const wr = v128.sub<E>(t1r, t3r),
        wi = v128.sub<E>(t1i, t3i);
      put<T>(o2 + across, mulRe<E>(wr, wi, c3, s3), mulIm<E>(wr, wi, c3, s3));
    }
  }
}

/** Two values after each other, half the size apart. */
function radix2<T, E>(x: usize, y: usize, half: usize): void {
  const across: usize = isFloat<T>() ? half : half >> 1;
  let o: usize = y;
  for (let i: usize = x; i < x + half; i += 32, o += isFloat<T>() ? 32 : 16) {
    const b: usize = i + half;
    const ar = v128.load(i),
      ai = v128.load(i, 16),
      br = v128.load(b),
      bi = v128.load(b, 16);
    put<T>(o, v128.add<E>(ar, br), v128.add<E>(ai, bi));
    put<T>(o + across, v128.sub<E>(ar, br), v128.sub<E>(ai, bi));
  }
}

/**
 * All stages but the first, whose results stand in one of two parts; returns where those of the last one stand, its real
 * and imaginary parts apart or as vectors side by side.
 */
export function further<T, E>(size: i32, from: usize, other: usize, factors: usize): usize {
  // Values stand a quarter of all apart in every stage.
  const jump: usize = (<usize>size * sizeof<E>()) >> 1;
  let x = from,
    y = other;
  let table = factors;
  let stride: usize = 8 * sizeof<E>();
  for (let length = size >> 2; length > 1; length >>= 2, stride <<= 2) {
    const end = table + <usize>(length >> 2) * 6 * sizeof<E>();
    if (length == 2) radix2<T, E>(x, y, stride);
    else if (length == 4) stage<T, E>(x, y, jump, stride, table, end);
    else stage<Beside, E>(x, y, jump, stride, table, end);
    table = end;
    const t = x;
    x = y;
    y = t;
  }
  return x;
}

/**
 * Transforms the four quarters that the first stage makes of frames, each by itself; returns where the first of them
 * stands, the others behind it.
 *
 * @param size - of a quarter
 * @param quarterFirst - table of its first stage
 * @param end - where that one ends
 * @param later - those of its later stages
 */
export function transformQuarters<E>(
  size: i32,
  input: usize,
  work: usize,
  quarterFirst: usize,
  end: usize,
  later: usize,
): usize {
  const bytes: usize = <usize>size * 2 * sizeof<E>();
  let result: usize = 0;
  for (let r: usize = 0; r < 4; r++) {
    const from = input + r * bytes,
      to = work + r * bytes;
    first<Beside, E>(from, bytes >> 2, 0, 0, to, 0, quarterFirst, end);
    const at = further<Beside, E>(size, to, from, later);
    if (r == 0) result = at;
  }
  return result;
}
