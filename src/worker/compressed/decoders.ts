import { createReadStream } from 'node:fs';
import { AudioSampleSink, EncodedPacketSink } from 'mediabunny';
import { MPEGDecoder } from 'mpg123-decoder';
import { OpusDecoder } from 'opus-decoder';
import { AudioFileError } from '#core/audio/audio-file-error';
import { isLossy } from '#core/audio/codec';
import type { MediaSound } from './media-file';

/** One array per channel, equally long. */
export type DecodedBlock = readonly Float32Array[];

/** Decodes one file block by block. */
export type Decoder = (path: string, sound: MediaSound) => AsyncGenerator<DecodedBlock>;

/**
 * The decoder for a file, from well-kept packages; null where there is none and the page has to decode (AAC, which
 * comes with patents, and Vorbis, whose decoders here bring a licence that asks for more).
 */
export function decoderFor({ container, codec }: Pick<MediaSound, 'container' | 'codec'>): Decoder | null {
  if (codec === 'mp3' && container === 'MP3') return decodeMp3;
  if (codec === 'opus') return decodeOpus;
  return !isLossy(codec) && codec.startsWith('pcm') ? decodePcm : null;
}

/** Frame by frame from the bytes, so that the encoder's delay and padding are taken off as the file says (mpg123). */
async function* decodeMp3(path: string): AsyncGenerator<DecodedBlock> {
  const decoder = new MPEGDecoder();
  await decoder.ready;
  try {
    for await (const bytes of createReadStream(path)) {
      const { channelData, errors } = decoder.decode(bytes as Buffer);
      mustBeWhole(errors);
      if (channelData.length > 0) yield channelData;
    }
  } finally {
    decoder.free();
  }
}

/** Opus decodes at 48 kHz; what the encoder put before the sound is in its header (RFC 7845, sections 4.2 and 5.1). */
async function* decodeOpus(_path: string, { track, channels, durationS }: MediaSound): AsyncGenerator<DecodedBlock> {
  const header = bytesOf((await track.getDecoderConfig())?.description);
  const preSkip = header.length >= 12 ? header[10] | (header[11] << 8) : 0;
  const family = header.length >= 19 ? header[18] : 0;
  if (channels > 2 && header.length < 21 + channels)
    throw new AudioFileError('malformed', 'The Opus header does not say how its channels are coupled.');
  const decoder = new OpusDecoder({
    channels,
    preSkip,
    ...(family === 0 ? {} : { streamCount: header[19], coupledStreamCount: header[20], channelMappingTable: [...header.subarray(21, 21 + channels)] }), // prettier-ignore
  });
  await decoder.ready;
  let left = Math.round(durationS * OPUS_RATE);
  try {
    for await (const { data } of new EncodedPacketSink(track).packets()) {
      const { channelData, errors } = decoder.decodeFrame(data);
      mustBeWhole(errors);
      // What fills the last packet is no sound.
      const count = Math.min(left, channelData[0]?.length ?? 0);
      if (count > 0) yield channelData.map((samples) => samples.subarray(0, count));
      left -= count;
    }
  } finally {
    decoder.free();
  }
}

/** Opus always decodes to this rate. */
export const OPUS_RATE = 48_000;

/** Plain samples, as cameras write them into films. */
async function* decodePcm(_path: string, { track }: MediaSound): AsyncGenerator<DecodedBlock> {
  for await (const sample of new AudioSampleSink(track).samples()) {
    const block = Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
      const samples = new Float32Array(sample.numberOfFrames);
      sample.copyTo(samples, { planeIndex, format: 'f32-planar' });
      return samples;
    });
    sample.close();
    yield block;
  }
}

function bytesOf(description: AllowSharedBufferSource | undefined): Uint8Array {
  if (description === undefined) return new Uint8Array();
  return ArrayBuffer.isView(description)
    ? new Uint8Array(description.buffer, description.byteOffset, description.byteLength)
    : new Uint8Array(description);
}

function mustBeWhole(errors: readonly { readonly message: string }[]): void {
  const [first] = errors;
  if (first) throw new AudioFileError('malformed', `The file is damaged: ${first.message}. Copy it again.`);
}
