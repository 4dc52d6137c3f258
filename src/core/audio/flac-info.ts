import { AudioFileError } from './audio-file-error';
import type { AudioFormat } from './audio-format';
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
