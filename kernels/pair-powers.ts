// What pairs of frames make of a transform of doubles or of floats (E): the powers of two frames.
import { turned } from './stockham';

function squares<E>(re: v128, im: v128, scale: v128): v128 {
  return v128.mul<E>(v128.add<E>(v128.mul<E>(re, re), v128.mul<E>(im, im)), scale);
}

/** A vector's numbers from the last to the first. */
function reversed<E>(vector: v128): v128 {
  return sizeof<E>() == 8 ? v128.shuffle<f64>(vector, vector, 1, 0) : v128.shuffle<f32>(vector, vector, 3, 2, 1, 0);
}

/** The first number of what comes next, then those of a vector from the last to the second. */
function reversedFrom<E>(next: v128, vector: v128): v128 {
  return sizeof<E>() == 8 ? v128.shuffle<f64>(next, vector, 0, 3) : v128.shuffle<f32>(next, vector, 0, 7, 6, 5);
}

/** Bins of four quarters in turn: the first number of each, then the second one of each, and so on. */
function inTurn<E>(to: usize, a: v128, b: v128, c: v128, d: v128): void {
  if (sizeof<E>() == 4) turned(to, 16, a, b, c, d);
  else {
    v128.store(to, v128.shuffle<f64>(a, b, 0, 2));
    v128.store(to, v128.shuffle<f64>(c, d, 0, 2), 16);
    v128.store(to, v128.shuffle<f64>(a, b, 1, 3), 32);
    v128.store(to, v128.shuffle<f64>(c, d, 1, 3), 48);
  }
}

/**
 * Powers of both frames from the four quarters of their transform, `bytes` each: bin 4k + r is value k of quarter r. With
 * z = a + i·b, the spectra are A = (Z[k] + Z*[n−k])/2 and B = (Z[k] − Z*[n−k])/2i; n − (4k + r) stands in quarter 4 − r.
 *
 * @param end - bytes of values of a quarter that are wanted
 * @param powersA - where those of the first frame go
 * @param powersB - and of the second
 */
export function pairPowers<E>(
  quarters: usize,
  bytes: usize,
  quarterScale: E,
  end: usize,
  powersA: usize,
  powersB: usize,
): void {
  const scale = v128.splat<E>(quarterScale);
  const second = quarters + bytes,
    third = quarters + 2 * bytes,
    fourth = quarters + 3 * bytes;
  let to: usize = 0;
  for (let k: usize = 0; k < end; k += 32, to += 64) {
    // The values of one vector, and what mirrors them. Value m of the first quarter is its value 0: what bin 0 becomes of
    // it has no meaning.
    const back = bytes - 32 - k;
    const r0 = v128.load(quarters + k),
      i0 = v128.load(quarters + k, 16);
    const rm0 = reversedFrom<E>(v128.load(quarters + back, 32), v128.load(quarters + back)),
      im0 = reversedFrom<E>(v128.load(quarters + back, 48), v128.load(quarters + back, 16));
    const r1 = v128.load(second + k),
      i1 = v128.load(second + k, 16);
    const rm1 = reversed<E>(v128.load(fourth + back)),
      im1 = reversed<E>(v128.load(fourth + back, 16));
    const r2 = v128.load(third + k),
      i2 = v128.load(third + k, 16);
    const rm2 = reversed<E>(v128.load(third + back)),
      im2 = reversed<E>(v128.load(third + back, 16));
    const r3 = v128.load(fourth + k),
      i3 = v128.load(fourth + k, 16);
    const rm3 = reversed<E>(v128.load(second + back)),
      im3 = reversed<E>(v128.load(second + back, 16));
    inTurn<E>(
      powersA + to,
      squares<E>(v128.add<E>(r0, rm0), v128.sub<E>(i0, im0), scale),
      squares<E>(v128.add<E>(r1, rm1), v128.sub<E>(i1, im1), scale),
      squares<E>(v128.add<E>(r2, rm2), v128.sub<E>(i2, im2), scale),
      squares<E>(v128.add<E>(r3, rm3), v128.sub<E>(i3, im3), scale),
    );
    inTurn<E>(
      powersB + to,
      squares<E>(v128.sub<E>(r0, rm0), v128.add<E>(i0, im0), scale),
      squares<E>(v128.sub<E>(r1, rm1), v128.add<E>(i1, im1), scale),
      squares<E>(v128.sub<E>(r2, rm2), v128.add<E>(i2, im2), scale),
      squares<E>(v128.sub<E>(r3, rm3), v128.add<E>(i3, im3), scale),
    );
  }
  store<E>(powersA, 0);
  store<E>(powersB, 0);
}
