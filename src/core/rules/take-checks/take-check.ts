import type { NoiseFinding } from '../../measure/noise-finding';
import type { BandLevel } from '../../measure/third-octave-spectrum';
import type { Segment } from '../../measure/speech-segments';
import type { StepSheet } from '../step-sheet';

/** Everything a take is looked at for. */
export const TAKE_CHECKS = {
  'digital-silence': 'Digital silence',
  clipped: 'Clipping',
  level: 'Level in the window',
  'sample-rate': 'Sample rate',
  length: 'Length',
  'drop-outs': 'Drop-outs',
  silence: 'Silence is silent',
  event: 'Event in the room',
  hum: 'Hum',
  interference: 'Interference',
  pauses: 'Pauses hold steady noise',
  passage: 'Passage complete',
  unit: 'Right unit plugged in',
  side: 'Right side addressed',
  placement: 'Gain and distance as the step says',
  channels: 'Left and right',
} as const;
export type TakeCheck = keyof typeof TAKE_CHECKS;
export const TAKE_CHECK_IDS = Object.keys(TAKE_CHECKS) as readonly TakeCheck[];

/** What a check found. */
export interface Finding {
  readonly check: TakeCheck;
  /** "redo": the take is of no use as it is; "look": it may be; somebody has to say. */
  readonly weight: 'redo' | 'look';
  /** What is wrong, with figures. */
  readonly what: string;
  /** The next move. */
  readonly next: string;
}

/** A clip as checks see it. Levels are null for digital silence or where there is nothing to measure. */
export interface CheckedClip {
  readonly durationS: number;
  readonly sampleRateHz: number;
  readonly peakDbfs: number | null;
  readonly truePeakDbtp: number | null;
  readonly clippedRuns: number;
  /** RMS of each channel, AES17. */
  readonly channelsDbfs: readonly (number | null)[];
  readonly integratedLufs: number | null;
  readonly speech: readonly Segment[];
  readonly silence: readonly Segment[];
  readonly events: readonly Segment[];
  /** A-weighted level of the pauses. */
  readonly pauseDbfsA: number | null;
  /** What the pauses show beside steady noise. */
  readonly pauseFindings: readonly NoiseFinding[];
  readonly hum: { readonly mainsHz: number | null; readonly totalDbfs: number | null } | null;
  readonly interference: {
    readonly totalDbfs: number | null;
    readonly isRadio: boolean;
    readonly isBus: boolean;
  } | null;
  readonly dropOuts: number;
  readonly thirdOctave: readonly BandLevel[];
  /** K-weighted power in steps of 100 ms. */
  readonly stepPowers: Float64Array;
}

/** Another take that this one can be held against. */
export interface OtherTake {
  readonly step: string;
  readonly role: string;
  readonly unit: string;
  readonly isSameUnit: boolean;
  /** Of the session that is running, or of an earlier one. */
  readonly isToday: boolean;
  /** Kept, and none of its checks overruled: only such takes say what is usual. */
  readonly isNorm: boolean;
  readonly voice: string | null;
  readonly gainDb: number | null;
  readonly distanceM: number | null;
  readonly clip: CheckedClip;
}

/** A take that has just been recorded, with all it is judged by. */
export interface CheckedTake {
  readonly clip: CheckedClip;
  readonly step: StepSheet;
  readonly role: string;
  readonly playKind: string;
  /** As noted; null where nobody noted it. */
  readonly gainDb: number | null;
  readonly distanceM: number | null;
  readonly voice: string | null;
  /** Sample rate that the protocol asks for, or the rig runs at, or that most kept takes have. */
  readonly expectedRateHz: number | null;
  /** Gain of the step that this one's rule refers to. */
  readonly referenceGainDb: number | null;
  /** Other takes of the same kind of step, newest first. */
  readonly others: readonly OtherTake[];
}

/** The limit that a step sets for a check, or the usual one. */
export function limitOf(take: CheckedTake, check: TakeCheck, usual: number): number {
  return take.step.checks.find((c) => c.check === check)?.limit ?? usual;
}

/**
 * The sample rate of most takes; one odd take among them says nothing, and where none leads nothing is expected.
 *
 * @param takes - that may serve as a norm
 */
export function usualRate(takes: readonly { readonly clip: Pick<CheckedClip, 'sampleRateHz'> }[]): number | null {
  const counts = new Map<number, number>();
  for (const { clip } of takes) counts.set(clip.sampleRateHz, (counts.get(clip.sampleRateHz) ?? 0) + 1);
  const [first, second] = [...counts].sort((a, b) => b[1] - a[1]);
  return first === undefined || (second !== undefined && second[1] === first[1]) ? null : first[0];
}

/** Whether something is said at the step. */
export const isSpoken = (take: CheckedTake): boolean => ['text', 'phrase', 'sung'].includes(take.playKind);

/**
 * A level with a true minus sign.
 *
 * @example
 *   dbText(-3.2); // => '−3.2'
 */
export const dbText = (value: number, decimals = 1): string => value.toFixed(decimals).replace('-', '−');

/**
 * Seconds for people.
 *
 * @example
 *   timeText(1.25); // => '1.3 s'
 */
export const timeText = (seconds: number): string => `${seconds.toFixed(1)} s`;

/** Loudness that a take would have at 0 dB of gain. */
export const atUnityGain = (take: { gainDb: number | null; clip: CheckedClip }): number | null =>
  take.gainDb === null || take.clip.integratedLufs === null ? null : take.clip.integratedLufs - take.gainDb;

/** Earlier and today's takes of the same step with the same unit that may serve as a norm. */
export const sameUnitSameStep = (take: CheckedTake): OtherTake[] =>
  take.others.filter((o) => o.isNorm && o.isSameUnit && o.step === take.step.id);
