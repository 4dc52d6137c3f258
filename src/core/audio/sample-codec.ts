import { BYTES_PER_SAMPLE, type SampleEncoding } from './audio-format';

const SCALE_16 = 2 ** -15;
const SCALE_24 = 2 ** -23;
const SCALE_32 = 2 ** -31;

/**
 * Little-endian interleaved samples to one array of doubles per channel, full scale ±1.
 * Every PCM and float value is represented exactly.
 *
 * @param encoding - how samples are stored
 * @param bytes - at least `frames` whole frames
 * @param into - one array per channel, each at least `frames` long
 * @param frames - frames to decode
 */
export function decodeSamples(encoding: SampleEncoding, bytes: Uint8Array, into: Float64Array[], frames: number): void {
  const channels = into.length;
  if (encoding === 'pcm24') {
    if (channels === 1 && bytes.byteOffset % 4 === 0 && IS_LITTLE_ENDIAN) decode24Mono(bytes, into[0], frames);
    else for (let c = 0; c < channels; c++) decode24(bytes, into[c], 0, frames, 3 * c, 3 * channels);
    return;
  }
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let c = 0; c < channels; c++) {
    const out = into[c];
    switch (encoding) {
      case 'pcm16':
        for (let i = 0, p = 2 * c; i < frames; i++, p += 2 * channels) out[i] = view.getInt16(p, true) * SCALE_16;
        break;
      case 'pcm32':
        for (let i = 0, p = 4 * c; i < frames; i++, p += 4 * channels) out[i] = view.getInt32(p, true) * SCALE_32;
        break;
      case 'float32':
        for (let i = 0, p = 4 * c; i < frames; i++, p += 4 * channels) out[i] = view.getFloat32(p, true);
        break;
      case 'float64':
        for (let i = 0, p = 8 * c; i < frames; i++, p += 8 * channels) out[i] = view.getFloat64(p, true);
        break;
    }
  }
}

const IS_LITTLE_ENDIAN = new Uint8Array(Uint32Array.of(1).buffer)[0] === 1;

// DataView has no 24-bit read; three bytes shifted to the top of an int32 keep the sign.
function decode24(bytes: Uint8Array, out: Float64Array, from: number, to: number, start: number, stride: number): void {
  for (let i = from, p = start; i < to; i++, p += stride) {
    out[i] = (((bytes[p] << 8) | (bytes[p + 1] << 16) | (bytes[p + 2] << 24)) >> 8) * SCALE_24;
  }
}

/** Four samples are three whole words: a quarter of the reads of the plain way. */
function decode24Mono(bytes: Uint8Array, out: Float64Array, frames: number): void {
  const quads = Math.floor(frames / 4);
  const words = new Int32Array(bytes.buffer, bytes.byteOffset, 3 * quads);
  for (let q = 0, w = 0, i = 0; q < quads; q++, w += 3, i += 4) {
    const first = words[w];
    const second = words[w + 1];
    const third = words[w + 2];
    out[i] = ((first << 8) >> 8) * SCALE_24;
    out[i + 1] = ((((first >>> 24) | (second << 8)) << 8) >> 8) * SCALE_24;
    out[i + 2] = ((((second >>> 16) | (third << 16)) << 8) >> 8) * SCALE_24;
    out[i + 3] = (third >> 8) * SCALE_24;
  }
  decode24(bytes, out, 4 * quads, frames, 12 * quads, 3);
}

/**
 * Doubles (full scale ±1) to little-endian interleaved samples. PCM is rounded to nearest, ties away from zero,
 * and limited to the range of the format; no dither is added (the caller decides).
 *
 * @param encoding - 'pcm16', 'pcm24' or 'float32'
 * @param channels - one array per channel
 * @param start - first frame
 * @param frames - frames to encode
 * @returns the bytes
 */
export function encodeSamples(
  encoding: 'pcm16' | 'pcm24' | 'float32',
  channels: readonly ArrayLike<number>[],
  start: number,
  frames: number,
): Uint8Array<ArrayBuffer> {
  const width = BYTES_PER_SAMPLE[encoding];
  const bytes = new Uint8Array(frames * channels.length * width);
  channels.forEach((channel, c) => {
    const samples = { channel, start, frames, at: c * width, stride: channels.length * width };
    if (encoding === 'pcm24') encode24(samples, bytes);
    else encodeWords(encoding, samples, new DataView(bytes.buffer));
  });
  return bytes;
}

/** One channel that is to be encoded, and where its bytes go. */
interface ToEncode {
  readonly channel: ArrayLike<number>;
  readonly start: number;
  readonly frames: number;
  /** Of its first sample, in bytes. */
  readonly at: number;
  /** From sample to sample, in bytes. */
  readonly stride: number;
}

function encode24({ channel, start, frames, at, stride }: ToEncode, bytes: Uint8Array): void {
  for (let i = 0, p = at; i < frames; i++, p += stride) {
    const value = toInteger(channel[start + i], 23);
    bytes[p] = value;
    bytes[p + 1] = value >> 8;
    bytes[p + 2] = value >> 16;
  }
}

function encodeWords(
  encoding: 'pcm16' | 'float32',
  { channel, start, frames, at, stride }: ToEncode,
  view: DataView,
): void {
  for (let i = 0, p = at; i < frames; i++, p += stride)
    if (encoding === 'float32') view.setFloat32(p, channel[start + i], true);
    else view.setInt16(p, toInteger(channel[start + i], 15), true);
}

/** Nearest whole number, halves away from zero, within the range of the format. */
function toInteger(sample: number, bits: 15 | 23): number {
  const full = bits === 15 ? 32_768 : 8_388_608;
  const scaled = sample * full;
  const whole = scaled < 0 ? -Math.round(-scaled) : Math.round(scaled);
  return whole < -full ? -full : whole > full - 1 ? full - 1 : whole;
}
