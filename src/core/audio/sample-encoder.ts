import { BYTES_PER_SAMPLE } from './audio-format';

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
