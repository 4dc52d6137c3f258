import { encodeSamples } from './sample-codec';

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
  const width = layout.encoding === 'pcm16' ? 2 : layout.encoding === 'pcm24' ? 3 : 4;
  const frameBytes = layout.channels * width;
  const dataBytes = layout.frames * frameBytes;
  const large = dataBytes + 100 > 0xffff_ffff;
  const ds64Bytes = large ? 36 : 0;
  const bytes = new Uint8Array(44 + ds64Bytes);
  const view = new DataView(bytes.buffer);
  const riffSize = bytes.length - 8 + dataBytes + (dataBytes % 2);
  ascii(bytes, 0, large ? 'RF64' : 'RIFF');
  view.setUint32(4, large ? 0xffff_ffff : riffSize, true);
  ascii(bytes, 8, 'WAVE');
  if (large) {
    ascii(bytes, 12, 'ds64');
    view.setUint32(16, 28, true);
    view.setBigUint64(20, BigInt(riffSize), true);
    view.setBigUint64(28, BigInt(dataBytes), true);
    view.setBigUint64(36, BigInt(layout.frames), true);
  }
  const at = 12 + ds64Bytes;
  ascii(bytes, at, 'fmt ');
  view.setUint32(at + 4, 16, true);
  view.setUint16(at + 8, layout.encoding === 'float32' ? 3 : 1, true);
  view.setUint16(at + 10, layout.channels, true);
  view.setUint32(at + 12, layout.sampleRate, true);
  view.setUint32(at + 16, layout.sampleRate * frameBytes, true);
  view.setUint16(at + 20, frameBytes, true);
  view.setUint16(at + 22, width * 8, true);
  ascii(bytes, at + 24, 'data');
  view.setUint32(at + 28, large ? 0xffff_ffff : dataBytes, true);
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
