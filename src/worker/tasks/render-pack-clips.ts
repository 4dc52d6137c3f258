import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { resample } from '#core/audio/resample';
import { encodeWav } from '#core/audio/wav-write';
import { seededBits } from '#core/stats/random';
import { readClip } from '../read-clip';

/** Order to a worker: prepared clips of a test as files that are sent out. */
export interface RenderPackClipsTask {
  readonly clips: readonly { readonly path: string; readonly into: string }[];
}

export interface PackClip {
  readonly sha256: string;
  readonly bytes: number;
}

/** No ear needs more of a comparison, and every browser plays it. */
const HIGHEST_HZ = 48_000;
const STEP = 2 ** -15;

/**
 * 16 bits with triangular dither, of one rate and one number of samples: plain WAV files that differ in their samples
 * alone. A coder that saves space would tell by the length of the file which clip has the noise, or no highs.
 */
export default async function renderPackClips({ clips }: RenderPackClipsTask): Promise<PackClip[]> {
  const made: PackClip[] = [];
  for (const [i, { path, into }] of clips.entries()) {
    const { samples, format } = await readClip(path);
    const rate = Math.min(HIGHEST_HZ, format.sampleRate);
    const at = rate === format.sampleRate ? samples : resample(samples, format.sampleRate, rate);
    const bits = seededBits(`dither of a blind pack ${i}`);
    const dithered = at.map((x) => x + (STEP * (bits() - bits())) / 2 ** 32);
    const bytes = encodeWav([dithered], rate, 'pcm16');
    writeFileSync(into, bytes);
    made.push({ sha256: createHash('sha256').update(bytes).digest('hex'), bytes: bytes.length });
  }
  return made;
}
