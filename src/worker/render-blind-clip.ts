import { randomFillSync } from 'node:crypto';
import { encodeWav } from '#core/audio/wav-write';
import { readClip } from './read-clip';

/**
 * A prepared clip as it goes to a listener: 16 bits with triangular dither, drawn anew for every delivery. No two
 * deliveries have the same bytes, so that neither a hash nor the size tells that X is A.
 *
 * @param path - prepared clip
 * @returns a WAV file
 */
export default async function renderBlindClip(path: string): Promise<Uint8Array> {
  const { samples, format } = await readClip(path);
  const chance = randomFillSync(new Uint32Array(2 * samples.length));
  const step = 2 ** -15;
  const dithered = samples.map((x, i) => x + step * ((chance[2 * i] - chance[2 * i + 1]) / 2 ** 32));
  return encodeWav([dithered], format.sampleRate, 'pcm16');
}
