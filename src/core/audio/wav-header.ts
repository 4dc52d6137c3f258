import { AudioFileError } from './audio-file-error';
import {
  BYTES_PER_SAMPLE,
  HIGHEST_RATE,
  LOWEST_RATE,
  MOST_CHANNELS,
  type AudioFormat,
  type SampleEncoding,
} from './audio-format';
import type { ByteSource } from './byte-source';
import { riffHeader } from './wav-write';

/** A parsed header: the format, and where the samples lie. */
export interface WavHeader {
  /** Where the body of the "fmt " chunk lies. */
  readonly formatChunk: { readonly start: number; readonly size: number };
  readonly format: AudioFormat & { readonly encoding: SampleEncoding };
  /** Byte position of the first sample. */
  readonly dataStart: number;
  /** Bytes of one frame (all channels). */
  readonly frameBytes: number;
  /** Set where the file ends before its header says, or the header was never finished. */
  readonly truncatedFrom: { readonly claimedFrames: number | null } | null;
}

interface Chunk {
  readonly id: string;
  readonly start: number;
  readonly size: number;
}

/** Recorders and editors write a few dozen; reading more of them would take longer than the sound. */
const MOST_CHUNKS = 1000;
/** Sizes of file and data, number of samples, length of the table (EBU Tech 3306). */
const LEAST_DS64 = 28;
const UNKNOWN_SIZE = 0xffff_ffff;
const WAVE_FORMAT_PCM = 1;
const WAVE_FORMAT_IEEE_FLOAT = 3;
const WAVE_FORMAT_EXTENSIBLE = 0xfffe;
/** Bytes 2…15 of the sub-format GUIDs that stand for a plain format tag (Microsoft, WAVEFORMATEXTENSIBLE). */
const SUBFORMAT_TAIL = [0, 0, 0, 0, 0x10, 0, 0x80, 0, 0, 0xaa, 0, 0x38, 0x9b, 0x71];

/**
 * Reads the header of a WAV file: RIFF, RF64 (EBU Tech 3306) or BW64 (ITU-R BS.2088), chunks in any order,
 * with or without the pad byte after chunks of odd size.
 *
 * @param source - the file
 * @param options - settings
 * @param options.keepPart - accept what is there of a truncated file instead of refusing it
 * @returns format and position of the samples
 * @throws {@link AudioFileError} `not-audio`, `malformed`, `no-audio`, `truncated`, `unsupported-*`
 */
export function readWavHeader(source: ByteSource, options: { keepPart?: boolean } = {}): WavHeader {
  const head = readBytes(source, 0, 12);
  const magic = head.length < 12 ? '' : fourCc(head, 0);
  if (!['RIFF', 'RF64', 'BW64'].includes(magic) || fourCc(head, 8) !== 'WAVE') {
    throw new AudioFileError(
      'not-audio',
      source.size === 0
        ? 'The file is empty.'
        : 'This is not a WAV file: it does not begin with RIFF/WAVE, RF64 or BW64.',
    );
  }
  const { fmt, data, sizes } = findChunks(source);
  if (!fmt) {
    throw new AudioFileError('malformed', 'The WAV file has no "fmt " chunk, so its sample format is unknown.');
  }
  const described = readFormatChunk(readBytes(source, fmt.start, Math.min(fmt.size, 40)));
  if (!data) throw new AudioFileError('no-audio', 'The WAV file has no "data" chunk: there is no audio in it.');

  const claimedBytes = data.size === UNKNOWN_SIZE ? (sizes?.data ?? null) : data.size;
  const presentBytes = Math.max(0, source.size - data.start);
  // A recorder that was switched off leaves 0 or the unknown mark, with samples behind it.
  const unfinished = claimedBytes === null || (claimedBytes === 0 && presentBytes >= described.frameBytes);
  const frames = Math.floor((unfinished ? presentBytes : Math.min(claimedBytes, presentBytes)) / described.frameBytes);
  const truncated = unfinished || claimedBytes > presentBytes;
  if (frames === 0) {
    throw new AudioFileError('no-audio', 'The WAV file holds no samples.');
  }
  const format = {
    container: magic === 'RIFF' ? 'wav' : magic === 'RF64' ? 'rf64' : 'bw64',
    encoding: described.encoding,
    sampleRate: described.sampleRate,
    channels: described.channels,
    channelMask: described.channelMask,
    frames,
  } as const;
  const claimedFrames = unfinished ? null : Math.floor(claimedBytes / described.frameBytes);
  if (truncated && !options.keepPart) throw truncationError(claimedFrames, frames, described.sampleRate);
  return {
    format,
    formatChunk: fmt,
    dataStart: data.start,
    frameBytes: described.frameBytes,
    truncatedFrom: truncated ? { claimedFrames } : null,
  };
}

/**
 * A sound header for the part that is there of a truncated file: the same format chunk, sizes as they truly are.
 *
 * @param source - the truncated file
 * @param header - as read with `keepPart`
 * @returns bytes up to the first sample
 */
export function repairedHeader(source: ByteSource, header: WavHeader): Uint8Array {
  const { start, size } = header.formatChunk;
  return riffHeader(readBytes(source, start, size), header.frameBytes, header.format.frames);
}

function truncationError(claimedFrames: number | null, presentFrames: number, sampleRate: number): AudioFileError {
  const present = `${(presentFrames / sampleRate).toFixed(2)} s`;
  const claim =
    claimedFrames === null
      ? 'its header was never finished'
      : `its header promises ${(claimedFrames / sampleRate).toFixed(2)} s`;
  return new AudioFileError(
    'truncated',
    `The file ends too early: ${claim}, and ${present} of audio are there. Those ${present} can be kept as a part.`,
    { claimedFrames, presentFrames, sampleRate },
  );
}

function findChunks(source: ByteSource): {
  fmt: Chunk | null;
  data: Chunk | null;
  sizes: { data: number } | null;
} {
  let fmt: Chunk | null = null;
  let data: Chunk | null = null;
  let sizes: { data: number } | null = null;
  let position = 12;
  let chunks = 0;
  while (position + 8 <= source.size) {
    if (++chunks > MOST_CHUNKS)
      throw new AudioFileError(
        'malformed',
        `The WAV file has more than ${MOST_CHUNKS} chunks, which no recorder writes.`,
      );
    const head = readBytes(source, position, 8);
    const view = viewOf(head);
    const chunk: Chunk = { id: fourCc(head, 0), start: position + 8, size: view.getUint32(4, true) };
    let size = chunk.size;
    if (chunk.id === 'fmt ') fmt ??= chunk;
    if (chunk.id === 'data') {
      data ??= chunk;
      if (size === UNKNOWN_SIZE && sizes) size = sizes.data;
      // Of a header that was never finished, what follows is samples, not chunks.
      if (size === UNKNOWN_SIZE || (size === 0 && fmt)) break;
    }
    if (chunk.id === 'ds64') {
      const body = readBytes(source, chunk.start, 16);
      if (chunk.size < LEAST_DS64 || body.length < 16)
        throw new AudioFileError(
          'malformed',
          `The "ds64" chunk is too short: ${chunk.size} bytes in place of ${LEAST_DS64}.`,
        );
      sizes = { data: Number(viewOf(body).getBigUint64(8, true)) };
    }
    position = nextChunk(source, chunk.start + size, size);
  }
  return { fmt, data, sizes };
}

/** RIFF pads chunks of odd size with one byte; some writers forget it, so look which of the two makes sense. */
function nextChunk(source: ByteSource, end: number, size: number): number {
  if (size % 2 === 0) return end;
  const unpadded = readBytes(source, end, 4);
  const padded = readBytes(source, end + 1, 4);
  return looksLikeId(unpadded) && !looksLikeId(padded) ? end : end + 1;
}

const looksLikeId = (bytes: Uint8Array): boolean =>
  bytes.length === 4 && bytes.every((b) => b >= 0x20 && b < 0x7f) && bytes[0] !== 0x20;

function readFormatChunk(bytes: Uint8Array): {
  encoding: SampleEncoding;
  sampleRate: number;
  channels: number;
  channelMask: number | null;
  frameBytes: number;
} {
  if (bytes.length < 16) throw new AudioFileError('malformed', 'The "fmt " chunk is too short.');
  const view = viewOf(bytes);
  let tag = view.getUint16(0, true);
  const channels = view.getUint16(2, true);
  const sampleRate = view.getUint32(4, true);
  const frameBytes = view.getUint16(12, true);
  const bits = view.getUint16(14, true);
  let channelMask: number | null = null;
  if (tag === WAVE_FORMAT_EXTENSIBLE) {
    if (bytes.length < 40) throw new AudioFileError('malformed', 'The extensible "fmt " chunk is too short.');
    channelMask = view.getUint32(20, true) || null;
    const known = SUBFORMAT_TAIL.every((value, i) => bytes[26 + i] === value);
    tag = known ? view.getUint16(24, true) : -1;
  }
  const encoding = encodingOf(tag, bits);
  if (!encoding) {
    throw new AudioFileError(
      'unsupported-encoding',
      `Samples are stored as format ${tag < 0 ? 'unknown' : tag} with ${bits} bits; PCM of 16, 24 or 32 bits and float of 32 or 64 bits are read.`,
    );
  }
  checkRateAndChannels(sampleRate, channels);
  if (frameBytes !== channels * BYTES_PER_SAMPLE[encoding]) {
    throw new AudioFileError(
      'malformed',
      `The "fmt " chunk contradicts itself: ${channels} channels of ${bits} bits do not make frames of ${frameBytes} bytes.`,
    );
  }
  return { encoding, sampleRate, channels, channelMask, frameBytes };
}

/**
 * Refuses rates and channel counts outside the range that the measurements are checked for.
 *
 * @throws {@link AudioFileError} `unsupported-rate`, `unsupported-channels`
 */
export function checkRateAndChannels(sampleRate: number, channels: number): void {
  if (sampleRate < LOWEST_RATE || sampleRate > HIGHEST_RATE) {
    throw new AudioFileError(
      'unsupported-rate',
      `The sample rate is ${sampleRate} Hz; ${LOWEST_RATE} to ${HIGHEST_RATE} Hz are measured.`,
    );
  }
  if (channels < 1 || channels > MOST_CHANNELS) {
    throw new AudioFileError(
      'unsupported-channels',
      `The file has ${channels} channels; 1 to ${MOST_CHANNELS} are read.`,
    );
  }
}

function encodingOf(tag: number, bits: number): SampleEncoding | null {
  if (tag === WAVE_FORMAT_PCM) return bits === 16 ? 'pcm16' : bits === 24 ? 'pcm24' : bits === 32 ? 'pcm32' : null;
  if (tag === WAVE_FORMAT_IEEE_FLOAT) return bits === 32 ? 'float32' : bits === 64 ? 'float64' : null;
  return null;
}

function readBytes(source: ByteSource, position: number, length: number): Uint8Array {
  const into = new Uint8Array(length);
  return into.subarray(0, position >= source.size ? 0 : source.read(into, position));
}

const viewOf = (bytes: Uint8Array): DataView => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
const fourCc = (bytes: Uint8Array, at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));
