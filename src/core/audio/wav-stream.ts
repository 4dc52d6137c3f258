import { AudioFileError } from './audio-file-error';
import type { ByteSource } from './byte-source';
import { SampleDecoder } from './sample-decoder';
import { BLOCK_FRAMES, type SampleStream } from './sample-stream';
import { readWavHeader } from './wav-header';

/** Full scale is 1; files that hold integers as floats reach 32,768, and are refused with the rest. */
const LARGEST_SAMPLE = 1e4;
/** One read of the file serves several blocks: fewer calls into the system. */
const BLOCKS_PER_READ = 8;

/**
 * Opens a WAV file as a stream of blocks; memory is a few blocks, whatever the length.
 *
 * @param source - the file
 * @param options - settings
 * @param options.keepPart - read what is there of a truncated file
 * @returns the stream; its `read` throws {@link AudioFileError} `not-finite` at the first sample that is no number, or larger than 10,000
 * @throws {@link AudioFileError} as {@link readWavHeader}
 */
export function openWav(source: ByteSource, options: { keepPart?: boolean } = {}): SampleStream {
  const { format, dataStart, frameBytes } = readWavHeader(source, options);
  const capacity = BLOCKS_PER_READ * BLOCK_FRAMES;
  // Who only asks what the file is needs none.
  let decoder: SampleDecoder | null = null;
  const isFloat = format.encoding === 'float32' || format.encoding === 'float64';
  let frame = 0;
  /** Frame that the buffer begins with, and how many it holds. */
  let bufferedFrom = 0;
  let buffered = 0;

  const fill = (): SampleDecoder => {
    const filled = (decoder ??= new SampleDecoder(format.encoding, format.channels, capacity, BLOCK_FRAMES));
    const wanted = Math.min(capacity, format.frames - frame);
    const got = source.read(filled.bytes.subarray(0, wanted * frameBytes), dataStart + frame * frameBytes);
    if (got < wanted * frameBytes) {
      throw new AudioFileError('truncated', 'The file became shorter while it was being read.', {
        claimedFrames: format.frames,
        presentFrames: frame + Math.floor(got / frameBytes),
        sampleRate: format.sampleRate,
      });
    }
    bufferedFrom = frame;
    buffered = wanted;
    return filled;
  };

  return {
    format,
    read(into) {
      const wanted = Math.min(BLOCK_FRAMES, format.frames - frame);
      if (wanted === 0) return 0;
      const filled = frame >= bufferedFrom + buffered || !decoder ? fill() : decoder;
      filled.decode(frame - bufferedFrom, wanted, into);
      if (isFloat) assertSane(into, wanted, frame, format.sampleRate);
      frame += wanted;
      return wanted;
    },
    seek(to) {
      frame = Math.min(to, format.frames);
      bufferedFrom = frame;
      buffered = 0;
    },
    close() {
      // The byte source belongs to the caller.
    },
  };
}

/**
 * @param block - one array per channel
 * @param frames - how many frames to look at
 * @param firstFrame - position of the block in the clip, for the message
 * @throws {@link AudioFileError} `not-finite` with channel and time of the first sample that is no number, or beyond
 *   what any scale of samples reaches
 */
export function assertSane(
  block: readonly Float64Array[],
  frames: number,
  firstFrame: number,
  sampleRate: number,
): void {
  for (let c = 0; c < block.length; c++) {
    const samples = block[c];
    for (let i = 0; i < frames; i++) {
      // Not a number fails this as well.
      if (!(Math.abs(samples[i]) <= LARGEST_SAMPLE)) {
        const time = ((firstFrame + i) / sampleRate).toFixed(4);
        const value = Number.isFinite(samples[i]) ? samples[i].toExponential(1) : String(samples[i]);
        const what = Number.isFinite(samples[i]) ? `${value} times full scale` : value;
        throw new AudioFileError(
          'not-finite',
          `Channel ${c + 1} holds a sample that is ${what} at ${time} s; such a file cannot be measured. Export it again from the recorder or editor.`,
        );
      }
    }
  }
}
