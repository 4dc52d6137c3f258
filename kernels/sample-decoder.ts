// AssemblyScript, compiled by `npm run kernels` into src/core/audio/sample-decoder-kernel.ts.
//
// Little-endian samples of a file to doubles, full scale ±1, several side by side. From 1024 on: the bytes as they were
// read; then the doubles in their order; then one channel after the other.

export const BYTES: usize = 1024;
let values: usize = 0;
let planes: usize = 0;

const aligned = (place: usize): usize => (place + 15) & ~(<usize>15);

/** Makes room; vectors may read, and write, one vector further than they are asked to. */
export function plan(bytes: i32, samples: i32): void {
  values = aligned(BYTES + bytes) + 16;
  planes = values + ((<usize>samples) << 3) + 64;
  const end = planes + ((<usize>samples) << 3);
  const pages: i32 = <i32>((end + 65535) >> 16);
  if (memory.size() < pages) memory.grow(pages - memory.size());
}

/** Where the doubles stand in their order. */
export function valuesPlace(): usize {
  return values;
}

/** Where one channel after the other stands. */
export function planesPlace(): usize {
  return planes;
}

/** Four whole numbers of 32 bits to four doubles. */
function store4(to: usize, four: v128, scale: v128): void {
  v128.store(to, f64x2.mul(f64x2.convert_low_i32x4_s(four), scale));
  const upper = i8x16.shuffle(four, four, 8, 9, 10, 11, 12, 13, 14, 15, 8, 9, 10, 11, 12, 13, 14, 15);
  v128.store(to, f64x2.mul(f64x2.convert_low_i32x4_s(upper), scale), 16);
}

/** @param from - first byte @param count - samples */
export function pcm16(from: i32, count: i32): void {
  const scale = f64x2.splat(1.0 / 32768.0);
  let at = BYTES + <usize>from;
  let to = values;
  for (let i = 0; i < count; i += 8, at += 16, to += 64) {
    const eight = v128.load(at);
    store4(to, i32x4.extend_low_i16x8_s(eight), scale);
    store4(to + 32, i32x4.extend_high_i16x8_s(eight), scale);
  }
}

/** Three bytes shifted to the top of a word keep the sign. */
export function pcm24(from: i32, count: i32): void {
  const scale = f64x2.splat(1.0 / 8388608.0);
  const zero = i32x4.splat(0);
  let at = BYTES + <usize>from;
  let to = values;
  for (let i = 0; i < count; i += 4, at += 12, to += 32) {
    const bytes = v128.load(at);
    const tops = i8x16.shuffle(bytes, zero, 16, 0, 1, 2, 16, 3, 4, 5, 16, 6, 7, 8, 16, 9, 10, 11);
    store4(to, i32x4.shr_s(tops, 8), scale);
  }
}

export function pcm32(from: i32, count: i32): void {
  const scale = f64x2.splat(1.0 / 2147483648.0);
  let at = BYTES + <usize>from;
  let to = values;
  for (let i = 0; i < count; i += 4, at += 16, to += 32) store4(to, v128.load(at), scale);
}

export function float32(from: i32, count: i32): void {
  let at = BYTES + <usize>from;
  let to = values;
  for (let i = 0; i < count; i += 2, at += 8, to += 16) v128.store(to, f64x2.promote_low_f32x4(v128.load64_zero(at)));
}

export function float64(from: i32, count: i32): void {
  memory.copy(values, BYTES + <usize>from, (<usize>count) << 3);
}

/** Interleaved doubles to one channel after the other, `frames` each. */
export function spread(channels: i32, frames: i32): void {
  const stride = (<usize>channels) << 3;
  let to = planes;
  for (let c = 0; c < channels; c++) {
    let at = values + ((<usize>c) << 3);
    for (let i = 0; i < frames; i++, at += stride, to += 8) store<f64>(to, load<f64>(at));
  }
}
