import type { GainRule } from './step-sheet';

/** A step, as far as its gain goes. */
export interface GainStep {
  readonly id: string;
  readonly gain: GainRule | null;
}

/** Takes of one root are made at one gain, turned by so many decibels; '' is the root of steps that say nothing of it. */
export interface GainGroup {
  readonly root: string;
  readonly byDb: number;
}

/**
 * Gain that a rule gives: another take's, turned by so many decibels.
 *
 * @param gainDb - of the other take
 * @param byDb - how far the rule turns it
 * @returns null where it would go below 0 dB from above: where that dial ends is not known, so it has to be read off
 *
 * @example
 *   turnedGain(36, -12); // => 24
 * @example
 *   turnedGain(6, -12); // => null
 */
export function turnedGain(gainDb: number, byDb: number): number | null {
  const turned = gainDb + byDb;
  return turned < 0 && gainDb >= 0 ? null : turned;
}

/**
 * The step whose gain a step goes back to: "as at the passage, 12 dB less" and what goes back to that in turn.
 *
 * @param step - id; null where a file has no step yet
 * @param steps - of the protocol; each refers to earlier ones only
 */
export function gainGroup(step: string | null, steps: readonly GainStep[]): GainGroup {
  let byDb = 0;
  let at = steps.find((s) => s.id === step);
  while (at?.gain?.rule === 'as-step') {
    byDb += at.gain.byDb;
    const { step: before } = at.gain;
    at = steps.find((s) => s.id === before);
  }
  return { root: at?.gain ? at.id : '', byDb };
}
