import { notedGain } from '#core/rules/take-gain';
import type { Slot, TakeSettings } from '#contracts/session-plan';
import type { Step } from '#contracts/protocol';

/** What has to come before a take is worth making. */
export type Hindrance =
  /** Nothing is recorded here: the step fills in a table, or the unit's run is in the archive. */
  | 'nothing-to-record'
  /** No input is open. */
  | 'no-input'
  /** A field holds something that was not understood. */
  | 'refused-field'
  | 'no-gain';

/**
 * What hinders a take, the first thing first; null where nothing does.
 *
 * @param hasInput - an input is open
 * @param isRefused - asked only where all before it is well: it brings the field into view
 */
export function hindrance(
  slot: Pick<Slot, 'runId'>,
  step: Pick<Step, 'table'>,
  hasInput: boolean,
  isRefused: () => boolean,
  settings: Pick<TakeSettings, 'gainDb' | 'dial'>,
): Hindrance | null {
  if (step.table || slot.runId !== null) return 'nothing-to-record';
  if (!hasInput) return 'no-input';
  if (isRefused()) return 'refused-field';
  return notedGain(settings) === null ? 'no-gain' : null;
}

export const GAIN_IS_MISSING =
  'Note the gain first: decibels, the place of the dial, “auto” or “unknown”; 0 where nothing can be turned.';
