import { writeFileSync } from 'node:fs';
import { registerFlacEncoder } from '@mediabunny/flac-encoder';
import { createEncoder } from 'libopus-wasm';
import {
  AudioSample,
  AudioSampleSource,
  BufferTarget,
  EncodedAudioPacketSource,
  EncodedPacket,
  FlacOutputFormat,
  OggOutputFormat,
  Output,
} from 'mediabunny';

/** Opus knows no other rate that is wide enough. */
export const OPUS_HZ = 48_000;
/** A packet of 20 ms, which is what most encoders make. */
const OPUS_FRAME = 960;
/** Delay of the encoder at 48 kHz, audio mode: what a player takes off (RFC 7845, section 4.2). */
const OPUS_PRE_SKIP = 312;

/**
 * Writes a FLAC file of 16 bits, bit by bit what is given.
 *
 * @param channels - whole numbers from −32 768 to 32 767, equally long
 */
export async function writeFlac(into: string, channels: readonly Int16Array[], sampleRate: number): Promise<void> {
  registerFlacEncoder();
  const target = new BufferTarget();
  const output = new Output({ format: new FlacOutputFormat(), target });
  const source = new AudioSampleSource({ codec: 'flac' });
  output.addAudioTrack(source);
  await output.start();
  const frames = channels[0].length;
  for (let from = 0; from < frames; from += sampleRate) {
    const count = Math.min(sampleRate, frames - from);
    const data = new Int16Array(count * channels.length);
    channels.forEach((c, ch) => {
      for (let i = 0; i < count; i++) data[i * channels.length + ch] = c[from + i];
    });
    const sample = new AudioSample({ data, format: 's16', numberOfChannels: channels.length, sampleRate, timestamp: from / sampleRate }); // prettier-ignore
    await source.add(sample);
    sample.close();
  }
  await output.finalize();
  writeFileSync(into, bytesOf(target));
}

/**
 * Writes an Ogg file of Opus.
 *
 * @param channels - one or two, −1 … 1, at 48 kHz, equally long
 * @param bitRate - bits per second
 */
export async function writeOpus(into: string, channels: readonly Float64Array[], bitRate: number): Promise<void> {
  const count = channels.length === 1 ? 1 : 2;
  const encoder = await createEncoder({ sampleRate: OPUS_HZ, channels: count, application: OPUS_AUDIO, bitrate: bitRate }); // prettier-ignore
  try {
    const target = new BufferTarget();
    const output = new Output({ format: new OggOutputFormat(), target });
    const source = new EncodedAudioPacketSource('opus');
    output.addAudioTrack(source);
    await output.start();
    const config = { codec: 'opus', sampleRate: OPUS_HZ, numberOfChannels: count, description: opusHead(count) };
    const frames = channels[0].length + OPUS_PRE_SKIP;
    for (let from = 0; from < frames; from += OPUS_FRAME) {
      const data = new Float32Array(OPUS_FRAME * count);
      for (let ch = 0; ch < count; ch++)
        for (let i = 0; i < OPUS_FRAME; i++) data[i * count + ch] = channels[ch][from + i] ?? 0;
      const packet = new EncodedPacket(encoder.encodeFloat(data), 'key', from / OPUS_HZ, OPUS_FRAME / OPUS_HZ);
      await source.add(packet, from === 0 ? { decoderConfig: config } : undefined);
    }
    await output.finalize();
    writeFileSync(into, bytesOf(target));
  } finally {
    encoder.free();
  }
}

/** OPUS_APPLICATION_AUDIO of libopus: for anything but telephony. */
const OPUS_AUDIO = 2049;

/** The identification header of RFC 7845, section 5.1. */
function opusHead(channels: number): Uint8Array {
  const head = new DataView(new ArrayBuffer(19));
  const mark = 'OpusHead';
  for (let i = 0; i < mark.length; i++) head.setUint8(i, mark.charCodeAt(i));
  head.setUint8(8, 1);
  head.setUint8(9, channels);
  head.setUint16(10, OPUS_PRE_SKIP, true);
  head.setUint32(12, OPUS_HZ, true);
  return new Uint8Array(head.buffer);
}

function bytesOf({ buffer }: BufferTarget): Uint8Array {
  if (!buffer) throw new Error('the encoder wrote nothing');
  return new Uint8Array(buffer);
}
