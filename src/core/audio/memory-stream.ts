import type { AudioFormat } from './audio-format';
import { BLOCK_FRAMES, type SampleStream } from './sample-stream';

/**
 * Samples that are in memory already, as a stream.
 *
 * @param channels - one array per channel, all of one length
 * @param sampleRate - in hertz
 * @param format - what else is to be said of them
 */
export function memoryStream(
  channels: readonly Float64Array[],
  sampleRate = 48_000,
  format: Partial<AudioFormat> = {},
): SampleStream {
  let at = 0;
  return {
    format: {
      container: 'wav',
      encoding: 'float64',
      sampleRate,
      channels: channels.length,
      channelMask: null,
      frames: channels[0].length,
      ...format,
    },
    read(into) {
      const count = Math.min(BLOCK_FRAMES, channels[0].length - at);
      channels.forEach((samples, c) => into[c].set(samples.subarray(at, at + count)));
      at += count;
      return count;
    },
    seek(to) {
      at = Math.min(to, channels[0].length);
    },
    close: () => undefined,
  };
}
