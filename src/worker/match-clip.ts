import { BYTES_PER_SAMPLE } from '#core/audio/audio-format';
import { allocateBlock } from '#core/audio/sample-stream';
import { encodeSamples } from '#core/audio/sample-encoder';
import { wavHeader, type WavLayout } from '#core/audio/wav-write';
import { openClip } from './open-clip';

/**
 * Copies a clip with a gain, block by block: 24 bits, or 32-bit float where the clip has float samples.
 *
 * @param path - the clip
 * @param gainDb - applied to every sample
 * @param write - takes the bytes of a WAV file in turn
 */
export async function copyWithGain(path: string, gainDb: number, write: (piece: Uint8Array) => void): Promise<void> {
  const stream = openClip(path);
  try {
    const { format } = stream;
    const encoding: WavLayout['encoding'] = format.encoding.startsWith('float') ? 'float32' : 'pcm24';
    const layout = { encoding, sampleRate: format.sampleRate, channels: format.channels, frames: format.frames };
    write(wavHeader(layout));
    const block = allocateBlock(format.channels);
    const gain = 10 ** (gainDb / 20);
    for (let count = await stream.read(block); count > 0; count = await stream.read(block)) {
      for (const samples of block) for (let i = 0; i < count; i++) samples[i] *= gain;
      write(encodeSamples(encoding, block, 0, count));
    }
    if ((format.frames * format.channels * BYTES_PER_SAMPLE[encoding]) % 2 === 1) write(new Uint8Array(1));
  } finally {
    stream.close();
  }
}
