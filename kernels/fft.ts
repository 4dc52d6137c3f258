// AssemblyScript, compiled by `npm run kernels` into src/core/dsp/fft-kernel.ts.
//
// Complex forward FFT: Stockham's self-sorting radix-4 form (one radix-2 stage at the end where the exponent is odd)
// on separate real and imaginary parts, two doubles at a time (SIMD). JavaScript checks the bounds of every access to
// an array; this does not, which makes it four to six times as fast, and the spectrum is most of an analysis.
//
// Memory from 1024 on, n doubles each: real in, imaginary in, real work, imaginary work, cosines, sines; then six
// tables of n/4 doubles, cos and sin of p, 2p, 3p, for the first stage. Behind them, for Welch's method: window (n),
// samples of two frames (2n, of which overlapping frames use less) and the powers of both frames (n/2 each). The caller fills tables,
// window, and input or samples.
let n: i32 = 0;
let RE: usize = 0,
  IM: usize = 0,
  WR: usize = 0,
  WI: usize = 0,
  TC: usize = 0,
  TS: usize = 0,
  FT: usize = 0,
  WIN: usize = 0,
  SAM: usize = 0,
  PA: usize = 0,
  PB: usize = 0;
/** Lays out memory for a size (a power of two, 16 or more); returns where it begins. */
export function plan(size: i32): usize {
  n = size;
  const bytes: usize = (<usize>size) << 3;
  RE = 1024;
  IM = RE + bytes;
  WR = IM + bytes;
  WI = WR + bytes;
  TC = WI + bytes;
  TS = TC + bytes;
  FT = TS + bytes;
  WIN = FT + 6 * (bytes >> 2);
  SAM = WIN + bytes;
  PA = SAM + 2 * bytes;
  PB = PA + (bytes >> 1);
  const end: usize = PB + (bytes >> 1);
  const pages: i32 = <i32>((end + 65535) >> 16);
  if (memory.size() < pages) memory.grow(pages - memory.size());
  return RE;
}
function mulRe(ar: v128, ai: v128, c: v128, s: v128): v128 {
  return f64x2.sub(f64x2.mul(ar, c), f64x2.mul(ai, s));
}
function mulIm(ar: v128, ai: v128, c: v128, s: v128): v128 {
  return f64x2.add(f64x2.mul(ar, s), f64x2.mul(ai, c));
}

/** The first stage has a stride of one: results of two groups are interleaved by shuffles. */
function first(xr: usize, xi: usize, yr: usize, yi: usize): void {
  const q: usize = ((<usize>n) >> 2) << 3; // bytes of a quarter
  for (let p: usize = 0; p < q; p += 16) {
    const ar = v128.load(xr + p),
      ai = v128.load(xi + p);
    const br = v128.load(xr + p + q),
      bi = v128.load(xi + p + q);
    const cr = v128.load(xr + p + 2 * q),
      ci = v128.load(xi + p + 2 * q);
    const dr = v128.load(xr + p + 3 * q),
      di = v128.load(xi + p + 3 * q);
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
    const c1 = v128.load(FT + p),
      s1 = v128.load(FT + p + q),
      c2 = v128.load(FT + p + 2 * q),
      s2 = v128.load(FT + p + 3 * q),
      c3 = v128.load(FT + p + 4 * q),
      s3 = v128.load(FT + p + 5 * q);
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
function stage(xr: usize, xi: usize, yr: usize, yi: usize, length: i32, stride: i32): void {
  const quarter = length >> 2;
  const sb: usize = (<usize>stride) << 3;
  const jump: usize = sb * quarter;
  for (let p = 0; p < quarter; p++) {
    const k: usize = (<usize>(p * stride)) << 3;
    const c1 = v128.load64_splat(TC + k),
      s1 = v128.load64_splat(TS + k),
      c2 = v128.load64_splat(TC + 2 * k),
      s2 = v128.load64_splat(TS + 2 * k),
      c3 = v128.load64_splat(TC + 3 * k),
      s3 = v128.load64_splat(TS + 3 * k);
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

/** Transforms the input; returns where the real parts of the result begin, the imaginary ones following. */
export function forward(): usize {
  let ar = RE,
    ai = IM,
    br = WR,
    bi = WI;
  first(ar, ai, br, bi);
  let length = n >> 2,
    stride = 4;
  let t = ar;
  ar = br;
  br = t;
  t = ai;
  ai = bi;
  bi = t;
  while (length > 1) {
    if (length == 2) {
      radix2(ar, ai, br, bi, stride);
      length = 1;
    } else {
      stage(ar, ai, br, bi, length, stride);
      length >>= 2;
      stride <<= 2;
    }
    t = ar;
    ar = br;
    br = t;
    t = ai;
    ai = bi;
    bi = t;
  }
  return ar;
}

/**
 * Powers of two successive frames, which go through one transform as its real and its imaginary part: windowed
 * samples in, |A|² and |B|² times a quarter of the scale out, bins 1 … n/2 − 1. The second frame begins `step` samples
 * (an even number) after the first.
 */
export function framePair(scale: f64, step: i32): void {
  const bytes: usize = (<usize>n) << 3;
  const half: usize = bytes >> 1;
  const hop: usize = (<usize>step) << 3;
  for (let i: usize = 0; i < bytes; i += 16) {
    const w = v128.load(WIN + i);
    v128.store(RE + i, f64x2.mul(w, v128.load(SAM + i)));
    v128.store(IM + i, f64x2.mul(w, v128.load(SAM + i + hop)));
  }
  const re = forward();
  const im = re + bytes;
  // With z = a + i·b, the spectra are A = (Z[k] + Z*[n−k])/2 and B = (Z[k] − Z*[n−k])/2i.
  const quarter = scale / 4;
  for (let k: usize = 8; k < half; k += 8) {
    const r = load<f64>(re + k),
      m = load<f64>(im + k);
    const rm = load<f64>(re + bytes - k),
      mm = load<f64>(im + bytes - k);
    store<f64>(PA + k, ((r + rm) * (r + rm) + (m - mm) * (m - mm)) * quarter);
    store<f64>(PB + k, ((r - rm) * (r - rm) + (m + mm) * (m + mm)) * quarter);
  }
}
