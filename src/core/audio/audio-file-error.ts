/** Why an audio file is refused. The codes are stable; messages are for people. */
export type AudioFileErrorCode =
  | 'not-audio'
  | 'no-audio'
  | 'truncated'
  | 'malformed'
  | 'unsupported-encoding'
  | 'unsupported-rate'
  | 'unsupported-channels'
  | 'not-finite'
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
    super(message);
  }
}
