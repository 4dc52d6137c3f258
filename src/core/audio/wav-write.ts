import { BYTES_PER_SAMPLE } from './audio-format';
import { encodeSamples } from './sample-encoder';

const LARGEST_RIFF = 0xffff_ffff;

/** What a WAV file to be written holds. */
export interface WavLayout {
  readonly encoding: 'pcm16' | 'pcm24' | 'float32';
  readonly sampleRate: number;
  readonly channels: number;
  readonly frames: number;
}

/**
 * Header of a WAV file whose length is known. Up to 4 GiB it is plain RIFF, beyond that RF64 (EBU Tech 3306).
 * The samples follow directly; after an odd number of data bytes one zero byte closes the file.
 *
 * @returns the header's bytes
 */
export function wavHeader(layout: WavLayout): Uint8Array<ArrayBuffer> {
  const width = BYTES_PER_SAMPLE[layout.encoding];
  const frameBytes = layout.channels * width;
  const fmt = new Uint8Array(16);
  const view = new DataView(fmt.buffer);
  view.setUint16(0, layout.encoding === 'float32' ? 3 : 1, true);
  view.setUint16(2, layout.channels, true);
  view.setUint32(4, layout.sampleRate, true);
  view.setUint32(8, layout.sampleRate * frameBytes, true);
  view.setUint16(12, frameBytes, true);
  view.setUint16(14, width * 8, true);
  return riffHeader(fmt, frameBytes, layout.frames);
}

/**
 * Everything that stands before the samples, around a given format chunk.
 *
 * @param fmt - body of the "fmt " chunk
 * @param frameBytes - bytes of one frame
 * @param frames - frames that will follow
 */
export function riffHeader(fmt: Uint8Array, frameBytes: number, frames: number): Uint8Array<ArrayBuffer> {
  const dataBytes = frames * frameBytes;
  const padded = fmt.length + (fmt.length % 2);
  const isLarge = dataBytes + padded + 100 > LARGEST_RIFF;
  const bytes = new Uint8Array(28 + padded + (isLarge ? 36 : 0));
  const view = new DataView(bytes.buffer);
  const riffSize = bytes.length - 8 + dataBytes + (dataBytes % 2);
  ascii(bytes, 0, isLarge ? 'RF64' : 'RIFF');
  view.setUint32(4, isLarge ? LARGEST_RIFF : riffSize, true);
  ascii(bytes, 8, 'WAVE');
  if (isLarge) {
    ascii(bytes, 12, 'ds64');
    view.setUint32(16, 28, true);
    view.setBigUint64(20, BigInt(riffSize), true);
    view.setBigUint64(28, BigInt(dataBytes), true);
    view.setBigUint64(36, BigInt(frames), true);
  }
  const at = isLarge ? 48 : 12;
  ascii(bytes, at, 'fmt ');
  view.setUint32(at + 4, fmt.length, true);
  bytes.set(fmt, at + 8);
  ascii(bytes, at + 8 + padded, 'data');
  view.setUint32(at + 12 + padded, isLarge ? LARGEST_RIFF : dataBytes, true);
  return bytes;
}

/**
 * A whole WAV file in memory, for short clips.
 *
 * @param channels - one array per channel, equally long, full scale ±1
 * @param sampleRate - in hertz
 * @param encoding - sample format
 * @returns the file's bytes
 */
export function encodeWav(
  channels: readonly ArrayLike<number>[],
  sampleRate: number,
  encoding: WavLayout['encoding'],
): Uint8Array<ArrayBuffer> {
  const frames = channels[0].length;
  const header = wavHeader({ encoding, sampleRate, channels: channels.length, frames });
  const data = encodeSamples(encoding, channels, 0, frames);
  const file = new Uint8Array(header.length + data.length + (data.length % 2));
  file.set(header);
  file.set(data, header.length);
  return file;
}

function ascii(bytes: Uint8Array, at: number, text: string): void {
  for (let i = 0; i < text.length; i++) bytes[at + i] = text.charCodeAt(i);
}
