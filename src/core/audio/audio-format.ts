/** How samples are stored in a file. */
export type SampleEncoding = 'pcm16' | 'pcm24' | 'pcm32' | 'float32' | 'float64';
/** Encoding as reported to people and in JSON; FLAC keeps its bit depth. */
export type ClipEncoding = SampleEncoding | `flac${number}`;

/** What a clip is, as far as its header tells. */
export interface AudioFormat {
  readonly container: 'wav' | 'rf64' | 'bw64' | 'flac';
  readonly encoding: ClipEncoding;
  /** In hertz. */
  readonly sampleRate: number;
  readonly channels: number;
  /** Speaker positions, bit mask of WAVE_FORMAT_EXTENSIBLE; null where the file names none. */
  readonly channelMask: number | null;
  /** Samples per channel. */
  readonly frames: number;
}

/** The range the measurements are checked for. */
export const LOWEST_RATE = 8_000;
export const HIGHEST_RATE = 192_000;
export const MOST_CHANNELS = 8;

/** Bytes of one sample of an encoding. */
export const BYTES_PER_SAMPLE: Readonly<Record<SampleEncoding, number>> = {
  pcm16: 2,
  pcm24: 3,
  pcm32: 4,
  float32: 4,
  float64: 8,
};
