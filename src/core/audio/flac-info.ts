import { AudioFileError } from './audio-file-error';
import type { AudioFormat } from './audio-format';
import type { ByteSource } from './byte-source';
import { checkRateAndChannels } from './wav-header';

/** The signature, a metadata header and the 34 bytes of STREAMINFO. */
export const STREAMINFO_END = 42;
const MOST_BITS = 24;
/** More samples than an hour and a half of one channel at 48 kHz are decoded only where the file is large as well. */
const MANY_SAMPLES = 2 ** 28;
const LEAST_BYTES_PER_SAMPLE = 0.05;
/** Pictures and notes of a recorder take a few blocks. */
const MOST_BLOCKS = 1000;

/** What the beginning of a FLAC file says. */
export interface FlacInfo {
  /** `frames` is 0 where the encoder did not note the length. */
  readonly format: AudioFormat;
  readonly bits: number;
  /** MD5 of the samples in hexadecimal; null where the encoder did not note it. */
  readonly md5: string | null;
  /** Byte position of the first frame. @throws AudioFileError `malformed` where the metadata does not end in one */
  readonly framesStart: (source: ByteSource) => number;
}

/**
 * Reads the STREAMINFO block that every FLAC file begins with (RFC 9639, section 8.2).
 *
 * @param head - the first 42 bytes, or what there is of them
 * @param size - of the whole file, in bytes
 * @throws {@link AudioFileError} `not-audio`, `truncated`, `unsupported-*`; `too-long` where a small file would be
 *   decoded into more than anybody recorded
 */
export function readFlacInfo(head: Uint8Array, size: number): FlacInfo {
  if (head.length < 4 || String.fromCharCode(...head.subarray(0, 4)) !== 'fLaC')
    throw new AudioFileError('not-audio', 'This is not a FLAC file: it does not begin with fLaC.');
  if (head.length < STREAMINFO_END)
    throw new AudioFileError('truncated', `The FLAC file ends within its header, after ${head.length} bytes. Copy it again from the recorder.`); // prettier-ignore
  if ((head[4] & 0x7f) !== 0)
    throw new AudioFileError('not-audio', 'This is not a FLAC file: STREAMINFO does not come first.');
  const at = 8 + 10;
  const sampleRate = (head[at] << 12) | (head[at + 1] << 4) | (head[at + 2] >> 4);
  const channels = ((head[at + 2] >> 1) & 0x07) + 1;
  const bits = (((head[at + 2] & 1) << 4) | (head[at + 3] >> 4)) + 1;
  const low = ((head[at + 4] << 24) | (head[at + 5] << 16) | (head[at + 6] << 8) | head[at + 7]) >>> 0;
  const frames = (head[at + 3] & 0x0f) * 2 ** 32 + low;
  checkRateAndChannels(sampleRate, channels);
  if (bits < 4 || bits > MOST_BITS)
    throw new AudioFileError('unsupported-encoding', `The FLAC file has samples of ${bits} bits; up to ${MOST_BITS} are read. Export it again with 24 bits.`); // prettier-ignore
  const samples = frames * channels;
  if (samples > MANY_SAMPLES && size < samples * LEAST_BYTES_PER_SAMPLE)
    throw new AudioFileError('too-long', `The FLAC file promises ${(frames / sampleRate / 60).toFixed(0)} min of ${channels} channels in ${(size / 1e6).toFixed(1)} MB: that is silence. Cut the part that matters.`); // prettier-ignore
  const md5 = [...head.subarray(26, STREAMINFO_END)].map((b) => b.toString(16).padStart(2, '0')).join('');
  return {
    format: { container: 'flac', encoding: `flac${bits}`, sampleRate, channels, channelMask: null, frames },
    bits,
    md5: /^0+$/.test(md5) ? null : md5,
    framesStart,
  };
}

function framesStart(source: ByteSource): number {
  const head = new Uint8Array(4);
  let position = 4;
  let isLast = false;
  for (let blocks = 0; !isLast; blocks++) {
    if (blocks > MOST_BLOCKS || source.read(head, position) < 4) throw noFrame();
    isLast = (head[0] & 0x80) !== 0;
    position += 4 + ((head[1] << 16) | (head[2] << 8) | head[3]);
  }
  if (source.read(head, position) < 4 || head[0] !== 0xff || (head[1] & 0xfc) !== 0xf8) throw noFrame();
  return position;
}

const noFrame = (): AudioFileError =>
  new AudioFileError('malformed', 'The FLAC file is damaged: no audio follows its metadata.');
