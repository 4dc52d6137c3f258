/** How the sound of a compressed file, or of a film, was packed before it became samples. */
export interface SoundCodec {
  /** "mp3", "aac", "opus", "vorbis", "pcm-s24" … */
  readonly codec: string;
  /** Mean over the file; null where nothing says it. */
  readonly bitRateKbps: number | null;
}

const NAMES: Readonly<Record<string, string>> = {
  mp3: 'MP3',
  aac: 'AAC',
  opus: 'Opus',
  vorbis: 'Vorbis',
  flac: 'FLAC',
  alac: 'ALAC',
  ac3: 'AC-3',
  eac3: 'E-AC-3',
  dts: 'DTS',
};

/** Codecs that give back the very samples that went in. */
const isLossless = (codec: string): boolean => codec.startsWith('pcm') || codec === 'flac' || codec === 'alac';

/**
 * Whether a codec leaves out what it takes for inaudible: quiet noise, and the top of the spectrum.
 *
 * @param codec - as the file names it
 */
export const isLossy = (codec: string): boolean => !isLossless(codec);

/** "AAC, 128 kbit/s". */
export function codecWords({ codec, bitRateKbps }: SoundCodec): string {
  const name = NAMES[codec] ?? (codec.startsWith('pcm') ? 'PCM' : codec);
  return bitRateKbps === null ? name : `${name}, ${Math.round(bitRateKbps)} kbit/s`;
}
