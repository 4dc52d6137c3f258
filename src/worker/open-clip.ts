import { closeSync, fstatSync, openSync, readSync } from 'node:fs';
import { AudioFileError } from '#core/audio/audio-file-error';
import type { ByteSource } from '#core/audio/byte-source';
import type { SampleStream } from '#core/audio/sample-stream';
import { openWav } from '#core/audio/wav-stream';
import { openFlac } from './flac-stream';

/** A file on disk as a byte source; the caller closes it. */
export function openBytes(path: string): ByteSource & { close(): void } {
  const descriptor = openSync(path, 'r');
  return {
    size: fstatSync(descriptor).size,
    read: (into, position) => readSync(descriptor, into, 0, into.length, position),
    close: () => closeSync(descriptor),
  };
}

/**
 * Opens a clip by what its first bytes say, whatever its name: WAV, RF64, BW64 or FLAC.
 *
 * @throws AudioFileError for anything else, and as the readers do
 */
export function openClip(path: string, options: { keepPart?: boolean } = {}): SampleStream {
  const bytes = openBytes(path);
  try {
    const magic = new Uint8Array(4);
    bytes.read(magic, 0);
    const text = String.fromCharCode(...magic);
    if (text === 'fLaC') return openFlac(bytes);
    if (bytes.size > 0 && !['RIFF', 'RF64', 'BW64'].includes(text)) {
      throw new AudioFileError('other-format', 'This is neither a WAV nor a FLAC file.');
    }
    const stream = openWav(bytes, options);
    return { ...stream, close: () => bytes.close() };
  } catch (error) {
    bytes.close();
    throw error;
  }
}
