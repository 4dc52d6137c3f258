import type { Difference } from '../../measure/difference';
import type { AnalysedTake } from '../run/analysed-take';

/** Two takes that differ by one thing. */
export interface TakePair {
  /** What is there in the one and not in the other: "booster", "windscreen". */
  readonly varies: string;
  /** How its switches stood, in words; null where it has none, or none was noted. */
  readonly setting: string | null;
  /** What is said or played at both halves. */
  readonly plays: string;
  readonly fitted: AnalysedTake;
  readonly without: AnalysedTake;
  /** The take with it re the one without, of words and music; null where it was not asked for, or cannot be had. */
  readonly difference: Difference | null;
}

/** What the difference of a pair is read from. */
export const HOLDS_A_PERFORMANCE: readonly string[] = ['text', 'phrase', 'sung', 'recording'];

/** What is held against each other at equal gain: its level is what is asked for. */
export const HOLDS_OUTSIDE_NOISE: readonly string[] = ['noise', 'wind', 'knocks'];

/** Settings that say how something was recorded, and not how the part itself was set; a booster needs phantom power. */
const NOT_OF_THE_PART: readonly string[] = [
  'dial',
  'voice',
  'recorder',
  'reader',
  'place',
  'mount',
  'processing',
  'phantom',
];

/**
 * How the part was set: what was noted of the take with it, and was not noted alike of the take without it.
 *
 * @returns in words; null where nothing was
 */
export function settingWords(
  fitted: Readonly<Record<string, string | number | boolean>>,
  without: Readonly<Record<string, string | number | boolean>>,
): string | null {
  const told = Object.entries(fitted).flatMap(([name, value]) =>
    NOT_OF_THE_PART.includes(name) || value === '' || value === false || without[name] === value
      ? []
      : [value === true ? words(name) : `${words(name)} ${value}`],
  );
  return told.length === 0 ? null : told.join(', ');
}

/** "lowCut" → "low cut". */
const words = (name: string): string => name.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();
