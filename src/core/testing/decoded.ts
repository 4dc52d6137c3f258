import { BYTES_PER_SAMPLE, type SampleEncoding } from '../audio/audio-format';
import { SampleDecoder } from '../audio/sample-decoder';

/** Samples of bytes that are not in a file, one array per channel. */
export function decoded(encoding: SampleEncoding, bytes: Uint8Array, channels = 1): Float64Array[] {
  const frames = bytes.length / (channels * BYTES_PER_SAMPLE[encoding]);
  const decoder = new SampleDecoder(encoding, channels, frames, frames);
  decoder.bytes.set(bytes);
  const into = Array.from({ length: channels }, () => new Float64Array(frames));
  decoder.decode(0, frames, into);
  return into;
}
