import type { Hash } from 'node:crypto';
import { AudioFileError } from '#core/audio/audio-file-error';
import type { ByteSource } from '#core/audio/byte-source';
import { FlacFrameDecoder, type FlacFrame } from '#core/audio/flac-frames';
import { readFlacInfo, STREAMINFO_END } from '#core/audio/flac-info';
import { BLOCK_FRAMES, type SampleStream } from '#core/audio/sample-stream';

/** Bytes that are read at a time; more where one frame is larger. */
const READ_BYTES = 256 * 1024;
/** Cryptography is loaded for the first file that has a sum: a tenth of what starting the command line takes. */
const newMd5 = (): Hash => process.getBuiltinModule('node:crypto').createHash('md5');
/** No frame of ours is larger: 65,536 samples of eight channels and 24 bits, stored as they are. */
const LARGEST_FRAME = 2 * 2 ** 20;

/**
 * A FLAC file as a stream of blocks, decoded frame by frame. Check sums of frames and of the whole are held against
 * the file.
 *
 * @param bytes - the file; the stream closes it
 * @throws AudioFileError `not-audio`, `malformed` on damage with its place, `truncated` when samples are missing
 */
export function openFlac(bytes: ByteSource & { close(): void }): SampleStream {
  const head = new Uint8Array(STREAMINFO_END);
  const info = readFlacInfo(head.subarray(0, bytes.read(head, 0)), bytes.size);
  const { format, bits, md5 } = info;
  const decoder = new FlacFrameDecoder({ channels: format.channels, bits });
  const hashing = md5 === null ? null : newMd5();
  const scale = 2 ** (1 - bits);
  let buffer = new Uint8Array(READ_BYTES);
  /** What of the buffer is not decoded yet, and where the file goes on behind it. */
  let [start, end, position] = [0, 0, info.framesStart(bytes)];
  let frame: FlacFrame | null = null;
  let offset = 0;
  let decoded = 0;

  const refill = (): void => {
    buffer.copyWithin(0, start, end);
    [start, end] = [0, end - start];
    if (end === buffer.length) {
      if (buffer.length >= LARGEST_FRAME) throw new AudioFileError('malformed', 'a frame has no end');
      const larger = new Uint8Array(2 * buffer.length);
      larger.set(buffer);
      buffer = larger;
    }
    const got = bytes.read(buffer.subarray(end), position);
    position += got;
    end += got;
  };

  const decode = (): FlacFrame | null => {
    for (;;) {
      const isEnd = position >= bytes.size;
      if (start === end && isEnd) return null;
      const next = end > start ? decoder.next(buffer.subarray(start, end), isEnd) : null;
      if (next) {
        start += next.bytes;
        return next;
      }
      refill();
    }
  };

  const nextFrame = (): void => {
    try {
      frame = format.frames > 0 && decoded >= format.frames ? null : decode();
    } catch (error) {
      if (!(error instanceof AudioFileError)) throw error;
      // A frame without an end is damaged, not the last one, where another begins behind it.
      const isLast = error.code === 'truncated' && !hasFrame(buffer.subarray(start + 2, end), decoder);
      const what = error.code === 'truncated' ? 'a frame has no end' : error.message;
      throw isLast ? tooEarly(format, decoded) : damagedAt(format, decoded, what);
    }
    offset = 0;
    if (frame) {
      decoded += frame.length;
      hashing?.update(interleaved(frame, bits));
    } else {
      if (decoded < format.frames) throw tooEarly(format, decoded);
      if (hashing && hashing.digest('hex') !== md5)
        throw new AudioFileError(
          'malformed',
          'The FLAC file is damaged: its sound is not the sound it was made of (its MD5 does not fit). Copy it again from the recorder.',
        );
    }
  };

  let isOver = false;
  return {
    format,
    read(into) {
      let filled = 0;
      while (filled < BLOCK_FRAMES && !isOver) {
        if (frame === null || offset === frame.length) {
          nextFrame();
          isOver = frame === null;
          continue;
        }
        const count = Math.min(BLOCK_FRAMES - filled, frame.length - offset);
        for (let c = 0; c < into.length; c++) {
          const [from, out] = [frame.channels[c], into[c]];
          for (let i = 0; i < count; i++) out[filled + i] = from[offset + i] * scale;
        }
        filled += count;
        offset += count;
      }
      return filled;
    },
    close: () => bytes.close(),
  };
}

/** Places that are looked at for the beginning of a frame. */
const MOST_TRIES = 200;

/** Whether a whole frame lies anywhere in these bytes. */
function hasFrame(bytes: Uint8Array, decoder: FlacFrameDecoder): boolean {
  let tries = 0;
  for (let at = bytes.indexOf(0xff); at >= 0 && tries < MOST_TRIES; at = bytes.indexOf(0xff, at + 1)) {
    if ((bytes[at + 1] & 0xfe) !== 0xf8) continue;
    tries++;
    try {
      if (decoder.next(bytes.subarray(at), false)) return true;
    } catch (error) {
      if (!(error instanceof AudioFileError)) throw error;
    }
  }
  return false;
}

/** Samples as their MD5 is taken over them: little-endian, whole bytes, channels in turn (RFC 9639, section 8.2). */
function interleaved({ channels, length }: FlacFrame, bits: number): Uint8Array {
  const width = Math.ceil(bits / 8);
  const stride = channels.length * width;
  const out = new Uint8Array(length * stride);
  channels.forEach((samples, c) => {
    for (let i = 0, at = c * width; i < length; i++, at += stride)
      for (let b = 0, value = samples[i]; b < width; b++, value >>= 8) out[at + b] = value;
  });
  return out;
}

type Format = SampleStream['format'];
const seconds = (format: Format, frames: number): string => `${(frames / format.sampleRate).toFixed(2)} s`;

const damagedAt = (format: Format, frames: number, what: string): AudioFileError =>
  new AudioFileError(
    'malformed',
    `The FLAC file is damaged at ${seconds(format, frames)}: ${what}. Copy it again from the recorder.`,
  );

function tooEarly(format: Format, frames: number): AudioFileError {
  const promised =
    format.frames > 0 ? `: it promises ${seconds(format, format.frames)}, and ` : ' in the middle of a frame: ';
  return new AudioFileError(
    'truncated',
    `The FLAC file ends too early${promised}${seconds(format, frames)} are there. Copy it again from the recorder.`,
  );
}
