// What pairs of frames make of a transform: the powers of two frames, n/2 doubles each with a gap behind.
let PA: usize = 0,
  PB: usize = 0;

/** Returns where what is laid out ends. */
export function layOut(size: i32, from: usize, gap: usize): usize {
  const half = (<usize>size) << 2;
  PA = from;
  PB = PA + half + gap;
  return PB + half + gap;
}

function squares(re: v128, im: v128, scale: v128): v128 {
  return f64x2.mul(f64x2.add(f64x2.mul(re, re), f64x2.mul(im, im)), scale);
}

/** Two values of one quarter and two of its neighbour belong to bins 0, 1 and 4, 5 from `to` on. */
function interleave(to: usize, even: v128, odd: v128): void {
  v128.store(to, v128.shuffle<f64>(even, odd, 0, 2));
  v128.store(to, v128.shuffle<f64>(even, odd, 1, 3), 32);
}

/**
 * Powers of both frames from the four quarters of their transform, `bytes` each: bin 4k + r is value k of quarter r. With
 * z = a + i·b, the spectra are A = (Z[k] + Z*[n−k])/2 and B = (Z[k] − Z*[n−k])/2i; n − (4k + r) stands in quarter 4 − r.
 */
export function pairPowers(quarters: usize, bytes: usize, quarterScale: f64): void {
  const scale = f64x2.splat(quarterScale);
  const second = quarters + bytes,
    third = quarters + 2 * bytes,
    fourth = quarters + 3 * bytes;
  let to: usize = 0;
  for (let k: usize = 0; k < bytes >> 1; k += 32, to += 64) {
    // Values k and k + 1, and what mirrors them. Value m of the first quarter is its value 0: what bin 0 becomes of it
    // has no meaning.
    const back = bytes - 32 - k;
    const r0 = v128.load(quarters + k),
      i0 = v128.load(quarters + k, 16);
    const rm0 = v128.shuffle<f64>(v128.load(quarters + back, 32), v128.load(quarters + back), 0, 3),
      im0 = v128.shuffle<f64>(v128.load(quarters + back, 48), v128.load(quarters + back, 16), 0, 3);
    const r1 = v128.load(second + k),
      i1 = v128.load(second + k, 16);
    const br1 = v128.load(fourth + back),
      bi1 = v128.load(fourth + back, 16);
    const rm1 = v128.shuffle<f64>(br1, br1, 1, 0),
      im1 = v128.shuffle<f64>(bi1, bi1, 1, 0);
    interleave(
      PA + to,
      squares(f64x2.add(r0, rm0), f64x2.sub(i0, im0), scale),
      squares(f64x2.add(r1, rm1), f64x2.sub(i1, im1), scale),
    );
    interleave(
      PB + to,
      squares(f64x2.sub(r0, rm0), f64x2.add(i0, im0), scale),
      squares(f64x2.sub(r1, rm1), f64x2.add(i1, im1), scale),
    );
    const r2 = v128.load(third + k),
      i2 = v128.load(third + k, 16);
    const br2 = v128.load(third + back),
      bi2 = v128.load(third + back, 16);
    const rm2 = v128.shuffle<f64>(br2, br2, 1, 0),
      im2 = v128.shuffle<f64>(bi2, bi2, 1, 0);
    const r3 = v128.load(fourth + k),
      i3 = v128.load(fourth + k, 16);
    const br3 = v128.load(second + back),
      bi3 = v128.load(second + back, 16);
    const rm3 = v128.shuffle<f64>(br3, br3, 1, 0),
      im3 = v128.shuffle<f64>(bi3, bi3, 1, 0);
    interleave(
      PA + to + 16,
      squares(f64x2.add(r2, rm2), f64x2.sub(i2, im2), scale),
      squares(f64x2.add(r3, rm3), f64x2.sub(i3, im3), scale),
    );
    interleave(
      PB + to + 16,
      squares(f64x2.sub(r2, rm2), f64x2.add(i2, im2), scale),
      squares(f64x2.sub(r3, rm3), f64x2.add(i3, im3), scale),
    );
  }
  store<f64>(PA, 0);
  store<f64>(PB, 0);
}
