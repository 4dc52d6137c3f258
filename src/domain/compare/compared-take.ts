import type { SoundCodec } from '#core/audio/codec';
import type { ClipSummary } from '#contracts/clip-summary';
import type { Protocol } from '#contracts/protocol';

/** The part of a clip's figures that comparing needs. */
export interface ComparedFigures extends Pick<ClipSummary, 'thirdOctave' | 'measurements'> {
  readonly loudness: Pick<ClipSummary['loudness'], 'integratedLufs' | 'truePeakDbtp'>;
  readonly noise: Pick<ClipSummary['noise'], 'reSpeechDb' | 'thirdOctave'>;
}

/** A take that stands beside others. */
export interface ComparedTake {
  readonly takeId: string;
  readonly step: string;
  readonly stepTitle: string;
  readonly protocol: string;
  readonly protocolVersion: number;
  readonly rig: string | null;
  /** Gain of the recording chain, in decibels; null where the device shows none. */
  readonly gainDb: number | null;
  /** Place of its dial, "automatic" or "unknown"; null where nothing is noted. */
  readonly dial: string | null;
  /** What was done to it after it was recorded, in words; null for one that is as it came. */
  readonly processing: string | null;
  /** How its file was packed; null for plain samples. */
  readonly sound: SoundCodec | null;
  readonly document: Protocol;
  readonly summary: ComparedFigures;
}

/** Loudness that matched clips are brought to. */
export const TARGET_LUFS = -23;
