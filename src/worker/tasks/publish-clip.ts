import { resample } from '#core/audio/resample';
import { seededBits } from '#core/stats/random';
import { OPUS_HZ, writeFlac, writeOpus } from '../compressed/encoders';
import { readChannels } from '../read-clip';

/** Order to a worker: a copy of a clip as it is handed out. */
export interface PublishClipTask {
  readonly path: string;
  readonly into: string;
  /** What it is played with, so that all of a deck are equally loud. */
  readonly gainDb: number;
  /** FLAC of 16 bits, at its own rate; or Opus of so many kilobits per second. */
  readonly format: { readonly codec: 'flac' } | { readonly codec: 'opus'; readonly kbps: number };
}

const FULL_SCALE = 2 ** 15;
/** Same clip, same gain, same bytes: what has not changed need not be written again. */
const DITHER = 'dither of what is handed out';

/** At most two channels go out: a reader has two ears. */
export default async function publishClip({ path, into, gainDb, format }: PublishClipTask): Promise<void> {
  const { channels, format: source } = await readChannels(path);
  const gain = 10 ** (gainDb / 20);
  const heard = channels.slice(0, 2).map((c) => c.map((x) => x * gain));
  if (format.codec === 'opus') {
    const resampled = heard.map((c) => resample(c, source.sampleRate, OPUS_HZ));
    await writeOpus(into, resampled, format.kbps * 1000);
    return;
  }
  await writeFlac(into, heard.map(dithered), source.sampleRate);
}

/** To 16 bits with triangular dither of one step, drawn from a seed. */
function dithered(samples: Float64Array): Int16Array {
  const bits = seededBits(DITHER);
  return Int16Array.from(samples, (x) => {
    const noise = (bits() - bits()) / 2 ** 32;
    return Math.max(-FULL_SCALE, Math.min(FULL_SCALE - 1, Math.round(x * FULL_SCALE + noise)));
  });
}
