import { rmSync } from 'node:fs';
import { AudioFileError } from '#core/audio/audio-file-error';
import { codecWords } from '#core/audio/codec';
import { formatSummary } from '#core/measure/clip-summary';
import type { DecodeClipResult, DecodeClipTask } from '#contracts/worker-messages';
import { decoderFor, OPUS_RATE } from '../compressed/decoders';
import { FloatWav } from '../compressed/float-wav';
import { withMedia, type MediaSound } from '../compressed/media-file';

/** Samples that a plain WAV of floats holds: beyond it a file would have to begin anew. */
const MOST_BYTES = 0xffff_0000;

/**
 * Decodes a compressed file, or the sound of a film, into a WAV of floats at its own rate. Without `into` it only
 * tells what the file is.
 */
export default async function decodeClipTask({ path, into }: DecodeClipTask): Promise<DecodeClipResult> {
  try {
    return await withMedia(path, (sound) => decoded(path, into, sound));
  } catch (error) {
    if (!(error instanceof AudioFileError)) throw error;
    return { kind: 'refused', code: error.code, message: error.message };
  }
}

async function decoded(path: string, into: string | null, sound: MediaSound): Promise<DecodeClipResult> {
  const { container, codec, bitRateKbps, channels, durationS } = sound;
  const packed = { container, codec, bitRateKbps };
  const decode = decoderFor(sound);
  if (into === null) return { kind: 'known', packed, durationS, channels };
  if (!decode)
    return { kind: 'page', packed, message: `${codecWords(packed)} is decoded by the browser: add the file on a page of Sediment.` }; // prettier-ignore
  const sampleRate = codec === 'opus' ? OPUS_RATE : sound.sampleRate;
  const file = new FloatWav(into, sampleRate, channels);
  try {
    for await (const block of decode(path, sound)) {
      if (4 * channels * (file.frames + block[0].length) > MOST_BYTES)
        throw new AudioFileError('too-long', 'Decoded, the sound is larger than 4 GB. Cut the file into parts.');
      file.add(block);
    }
    if (file.frames === 0) throw new AudioFileError('no-audio', 'The file holds no sound.');
  } catch (error) {
    file.close();
    rmSync(into, { force: true });
    throw error;
  }
  file.end();
  const format = formatSummary({ container: 'wav', encoding: 'float32', sampleRate, channels, channelMask: null, frames: file.frames }); // prettier-ignore
  return { kind: 'decoded', packed, format };
}
