import { AudioFileError } from './audio-file-error';
import type { AudioFormat } from './audio-format';
import type { ByteSource } from './byte-source';
import { checkRateAndChannels } from './wav-header';

/**
 * Reads the STREAMINFO block that every FLAC file begins with (RFC 9639, section 8.2).
 *
 * @param head - the first 42 bytes or more
 * @returns the format; `frames` is 0 where the encoder did not note the length
 * @throws {@link AudioFileError} `not-audio`, `unsupported-rate`, `unsupported-channels`
 */
export function readFlacInfo(head: Uint8Array): AudioFormat {
  const isFlac = head.length >= 42 && String.fromCharCode(...head.subarray(0, 4)) === 'fLaC' && (head[4] & 0x7f) === 0;
  if (!isFlac)
    throw new AudioFileError('not-audio', 'This is not a FLAC file: it does not begin with fLaC and STREAMINFO.');
  const at = 8 + 10;
  const sampleRate = (head[at] << 12) | (head[at + 1] << 4) | (head[at + 2] >> 4);
  const channels = ((head[at + 2] >> 1) & 0x07) + 1;
  const bits = (((head[at + 2] & 1) << 4) | (head[at + 3] >> 4)) + 1;
  const low = ((head[at + 4] << 24) | (head[at + 5] << 16) | (head[at + 6] << 8) | head[at + 7]) >>> 0;
  const frames = (head[at + 3] & 0x0f) * 2 ** 32 + low;
  checkRateAndChannels(sampleRate, channels);
  return { container: 'flac', encoding: `flac${bits}`, sampleRate, channels, channelMask: null, frames };
}

/**
 * The header of the first audio frame (RFC 9639, section 9.1), without the frame itself.
 *
 * @param source - the file
 * @throws {@link AudioFileError} `malformed` where the metadata does not end in a frame
 */
export function readFirstFrameHeader(source: ByteSource): Uint8Array {
  const head = new Uint8Array(4);
  let position = 4;
  for (let isLast = false; !isLast;) {
    if (source.read(head, position) < 4) throw noFrame();
    isLast = (head[0] & 0x80) !== 0;
    position += 4 + ((head[1] << 16) | (head[2] << 8) | head[3]);
  }
  const frame = new Uint8Array(16);
  const got = source.read(frame, position);
  if (got < 6 || frame[0] !== 0xff || (frame[1] & 0xfc) !== 0xf8) throw noFrame();
  const blockSizeCode = frame[2] >> 4;
  const rateCode = frame[2] & 0x0f;
  const blockSizeBytes = blockSizeCode === 6 ? 1 : blockSizeCode === 7 ? 2 : 0;
  const rateBytes = rateCode === 12 ? 1 : rateCode === 13 || rateCode === 14 ? 2 : 0;
  // Sync and codes, the frame's number (0 takes one byte), what the codes announce, and the checksum.
  return frame.slice(0, 4 + 1 + blockSizeBytes + rateBytes + 1);
}

const noFrame = (): AudioFileError =>
  new AudioFileError('malformed', 'The FLAC file is damaged: no audio follows its metadata.');
