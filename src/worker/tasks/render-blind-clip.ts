import { randomFillSync } from 'node:crypto';
import { fractionalDelay } from '#core/audio/fractional-delay';
import { encodeWav } from '#core/audio/wav-write';
import { readClip } from '../read-clip';

/** Half of the range in which the level of a delivery is drawn: two deliveries stay within 0.06 dB. */
const LEVEL_RANGE_DB = 0.03;

/**
 * A prepared clip as it goes to a listener: 16 bits with triangular dither, at a level and a place between two samples
 * that are drawn anew for every delivery. No two deliveries have the same bytes, and none is the other with noise
 * added, so that neither a hash, nor the size, nor a subtraction sample by sample tells that X is A. It stops a
 * listener, not somebody who writes a program that aligns them.
 *
 * @param path - prepared clip
 * @returns a WAV file
 */
export default async function renderBlindClip(path: string): Promise<Uint8Array> {
  const { samples, format } = await readClip(path);
  const chance = randomFillSync(new Uint32Array(2 * samples.length + 2));
  const drawn = (i: number): number => chance[2 * samples.length + i] / 2 ** 32;
  const gain = 10 ** ((LEVEL_RANGE_DB * (2 * drawn(0) - 1)) / 20);
  const step = 2 ** -15;
  const placed = fractionalDelay(samples, drawn(1));
  // Interpolation takes a little of the highest frequencies, more the further between two samples: put back as level.
  const power = (signal: Float64Array): number => signal.reduce((sum, x) => sum + x * x, 0);
  const level = gain * Math.sqrt(power(samples) / (power(placed) || 1));
  const dithered = placed.map((x, i) => level * x + step * ((chance[2 * i] - chance[2 * i + 1]) / 2 ** 32));
  return encodeWav([dithered], format.sampleRate, 'pcm16');
}
