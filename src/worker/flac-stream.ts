import { FLACDecoder, type FLACDecodedAudio } from '@wasm-audio-decoders/flac';
import { AudioFileError } from '#core/audio/audio-file-error';
import type { ByteSource } from '#core/audio/byte-source';
import { readFirstFrameHeader, readFlacInfo } from '#core/audio/flac-info';
import { BLOCK_FRAMES, type SampleStream } from '#core/audio/sample-stream';

/** Bytes handed to the decoder at a time. */
const READ_BYTES = 64 * 1024;
/** A header with room behind it, since the decoder reads ahead. */
const HEADER_ROOM = 64;

/**
 * A FLAC file as a stream of blocks, decoded piece by piece by the wasm decoder (libFLAC).
 * 16 and 24 bits pass exactly: the decoder's float32 holds them.
 *
 * @param bytes - the file; the stream closes it
 * @throws AudioFileError `not-audio`, `malformed` on damage, `truncated` when samples are missing at the end
 */
export async function openFlac(bytes: ByteSource & { close(): void }): Promise<SampleStream> {
  const head = new Uint8Array(42);
  bytes.read(head, 0);
  const format = readFlacInfo(head);
  const decoder = new FLACDecoder();
  await decoder.ready;
  const waiting: Float32Array[][] = [];
  let offset = 0;
  let position = 0;
  let ended = false;
  let delivered = 0;

  const keep = (decoded: FLACDecodedAudio): void => {
    if (decoded.errors.length > 0) {
      throw new AudioFileError('malformed', `The FLAC file is damaged: ${decoded.errors[0].message}.`);
    }
    if (decoded.samplesDecoded > 0) waiting.push(decoded.channelData);
  };

  const decodeMore = async (): Promise<void> => {
    const piece = new Uint8Array(READ_BYTES);
    const got = bytes.read(piece, position);
    position += got;
    if (got > 0) keep(await decoder.decode(piece.subarray(0, got)));
    else {
      // The decoder takes a frame for whole only when the header of another one follows, and would drop the last one
      // of some files; so it is shown a header once more, with nothing behind it.
      const header = new Uint8Array(HEADER_ROOM);
      header.set(readFirstFrameHeader(bytes));
      keep(await decoder.decode(header));
      keep(await decoder.flush());
      ended = true;
    }
  };

  const take = (into: Float64Array[], at: number): number => {
    const piece = waiting[0];
    const count = Math.min(BLOCK_FRAMES - at, piece[0].length - offset);
    into.forEach((out, c) => out.set(piece[c].subarray(offset, offset + count), at));
    offset += count;
    if (offset === piece[0].length) {
      waiting.shift();
      offset = 0;
    }
    return count;
  };

  return {
    format,
    async read(into) {
      let filled = 0;
      while (filled < BLOCK_FRAMES) {
        if (waiting.length > 0) filled += take(into, filled);
        else if (ended) break;
        else await decodeMore();
      }
      delivered += filled;
      if (filled === 0 && format.frames > 0 && delivered < format.frames) {
        throw new AudioFileError(
          'truncated',
          `The FLAC file ends too early: it promises ${(format.frames / format.sampleRate).toFixed(2)} s, and ${(delivered / format.sampleRate).toFixed(2)} s are there. Copy it again from the recorder.`,
        );
      }
      return filled;
    },
    close() {
      decoder.free();
      bytes.close();
    },
  };
}
