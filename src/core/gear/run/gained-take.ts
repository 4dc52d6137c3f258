import { atOneGain, gainWords, takeGain } from '../../rules/take-gain';
import type { AnalysedTake } from './analysed-take';

/** A take whose gain is a number that can be held against that of the takes beside it. */
export type GainedTake<T = AnalysedTake> = T & { readonly gainDb: number };

type Gain = Pick<AnalysedTake, 'gainDb' | 'dial'>;

/** Standard uncertainty of a difference between two positions of a gain control, as its scale has it (common practice, no source). */
export const GAIN_UNCERTAINTY_DB = 0.5;

/** Standard uncertainty of the difference between the gains of two takes, dB; none where both stand at one. */
export const gainDifferenceU = (
  a: { readonly gainDb: number | null; readonly gainU?: number },
  b: { readonly gainDb: number | null; readonly gainU?: number },
): number => (a.gainDb === b.gainDb ? 0 : Math.hypot(GAIN_UNCERTAINTY_DB, a.gainU ?? 0, b.gainU ?? 0));

/** Why figures that need equal gain are missing. */
export interface NoGain {
  readonly refused: string;
}

const AUTOMATIC_REASON = 'The gain was automatic: it turns pauses up and loud words down.';

/**
 * Takes with gains of which only the differences count: decibels where all have some, zero where all stand at one place
 * of the dial. One take by itself needs neither, unless its gain moved while it was made.
 *
 * @param takes - the same one may be there twice
 */
export function gained<T extends Gain>(...takes: readonly T[]): readonly GainedTake<T>[] | NoGain {
  const gains = takes.map((t) => takeGain(t.gainDb, t.dial));
  if (gains.some((g) => g.kind === 'automatic')) return { refused: AUTOMATIC_REASON };
  const numbers = new Set(takes).size === 1 ? takes.map((t) => t.gainDb ?? 0) : atOneGain(gains);
  return 'refused' in numbers ? numbers : takes.map((take, i) => ({ ...take, gainDb: numbers[i] }));
}

/** A take whose gain is known in decibels, for figures that are tied to volts or pascals; else why not. */
export function inDecibels<T extends Gain>(take: T): GainedTake<T> | NoGain {
  return take.gainDb === null
    ? { refused: `It needs the gain in dB; of this take it is noted: ${gainWords(takeGain(null, take.dial))}.` }
    : { ...take, gainDb: take.gainDb };
}

/** Whether levels cannot be held against each other; then it says why. */
export const isRefused = (x: object): x is NoGain => 'refused' in x;
