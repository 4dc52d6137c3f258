import type { AudioFormat } from '#core/audio/audio-format';
import { AudioFileError } from '#core/audio/audio-file-error';
import { readStretch } from '#core/audio/sample-stream';
import { openClip } from './open-clip';

/** Longest clip that is held in memory at once: a quarter of an hour at 48 kHz. */
const MOST_FRAMES = 15 * 60 * 48_000;

/**
 * One channel of a clip in memory, for measurements that need all of it at once (sweeps, differences).
 *
 * @param path - WAV or FLAC
 * @throws AudioFileError `too-long` for more than a quarter of an hour, and as {@link openClip}
 */
export async function readClip(path: string): Promise<{ samples: Float64Array; format: AudioFormat }> {
  const { channels, format } = await readChannels(path);
  return { samples: channels[0], format };
}

/** All channels of a clip in memory; errors as {@link readClip}. */
export async function readChannels(path: string): Promise<{ channels: Float64Array[]; format: AudioFormat }> {
  const stream = openClip(path);
  try {
    const { format } = stream;
    if (format.frames > MOST_FRAMES) {
      throw new AudioFileError(
        'too-long',
        `The file lasts ${(format.frames / format.sampleRate / 60).toFixed(0)} min; at most ${MOST_FRAMES / 60 / 48_000} min can be compared at once. Cut the part that matters.`,
      );
    }
    const channels = await readStretch(stream, 0, format.frames);
    if (channels[0].length === 0) throw new AudioFileError('no-audio', 'The file holds no samples.');
    return { channels, format };
  } finally {
    stream.close();
  }
}

/** Two clips of one sample rate. */
export async function readPair(
  first: string,
  second: string,
): Promise<{ a: Float64Array; b: Float64Array; sampleRate: number }> {
  const [x, y] = [await readClip(first), await readClip(second)];
  if (x.format.sampleRate !== y.format.sampleRate) {
    throw new AudioFileError(
      'unlike-rates',
      `One file has ${x.format.sampleRate} Hz, the other ${y.format.sampleRate} Hz: only clips of one sample rate can be compared. Export one of them again.`,
    );
  }
  return { a: x.samples, b: y.samples, sampleRate: x.format.sampleRate };
}
