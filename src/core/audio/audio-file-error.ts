/** Why an audio file is refused. The codes are stable; messages are for people. */
export type AudioFileErrorCode =
  | 'not-audio'
  /** Neither WAV nor FLAC: it may be a compressed file or a film. */
  | 'other-format'
  | 'no-audio'
  | 'truncated'
  | 'malformed'
  | 'unsupported-encoding'
  | 'unsupported-rate'
  | 'unsupported-channels'
  | 'not-finite'
  | 'unmeasurable'
  | 'too-long'
  | 'unlike-rates';

/** What is there of a file that ends too early. */
export interface Truncation {
  /** Frames the header promises; null where the header was never finished. */
  readonly claimedFrames: number | null;
  /** Whole frames that the file holds. */
  readonly presentFrames: number;
  readonly sampleRate: number;
}

/** A file that cannot be read as audio, with a code, a message for people, and what of it is safe. */
export class AudioFileError extends Error {
  override readonly name = 'AudioFileError';
  constructor(
    readonly code: AudioFileErrorCode,
    message: string,
    readonly truncation: Truncation | null = null,
  ) {
    // Between threads an error keeps its message and its cause, but neither its class nor other fields.
    super(message, { cause: { audioFileError: code } });
  }
}

/** The same error again from what has come of it through a thread; any other error as it is. */
export function asAudioFileError(error: unknown): unknown {
  const cause = error instanceof Error ? (error.cause as { audioFileError?: AudioFileErrorCode } | undefined) : null;
  return cause?.audioFileError && error instanceof Error && !(error instanceof AudioFileError)
    ? new AudioFileError(cause.audioFileError, error.message)
    : error;
}
