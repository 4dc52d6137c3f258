import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { AudioFileError } from '#core/audio/audio-file-error';
import type { SoundCodec } from '#core/audio/codec';
import { openClip } from '#worker/open-clip';

/** A clip that can be measured, and how its sound was packed before. */
export interface PlainClip {
  readonly path: string;
  readonly sound: SoundCodec | null;
  /** Takes away what was decoded for it. */
  readonly remove: () => void;
}

/**
 * The file itself where it is WAV or FLAC, else its sound decoded into a temporary file.
 *
 * @param path - of any file with sound
 * @throws AudioFileError where it is no sound, or one that only a browser decodes
 */
export async function plainClip(path: string): Promise<PlainClip> {
  if (isPlain(path)) return { path, sound: null, remove: () => undefined };
  const folder = mkdtempSync(join(tmpdir(), 'sediment-decoded-'));
  const remove = (): void => rmSync(folder, { recursive: true, force: true });
  const into = join(folder, 'decoded.wav');
  // Decoders are read when a file needs one.
  const { default: decodeClip } = await import('#worker/tasks/decode-clip');
  const found = await decodeClip({ path, into });
  if (found.kind === 'decoded') return { path: into, sound: found.packed, remove };
  remove();
  throw new AudioFileError('not-audio', found.kind === 'known' ? 'It was not decoded.' : found.message);
}

/** Anything but "this is neither WAV nor FLAC" is for whoever reads it to say. */
function isPlain(path: string): boolean {
  try {
    openClip(path).close();
    return true;
  } catch (error) {
    return !(error instanceof AudioFileError && error.code === 'other-format');
  }
}
