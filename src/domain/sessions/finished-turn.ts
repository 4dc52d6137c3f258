import { undecidedTakes } from '#core/rules/step-takes';
import type { TableReading } from '#contracts/table-reading';

/** A take of a turn, as far as finishing the turn needs it. */
export interface FinishedTake {
  readonly step: string;
  readonly attempt: number;
  readonly state: 'open' | 'kept' | 'retaken';
  readonly gainDb: number | null;
  /** What the device shows instead of decibels: a place of its dial, "automatic", "unknown"; '' where nothing is noted. */
  readonly dial: string;
}

/** Why a turn cannot become a run yet. */
export interface TurnRefusal {
  readonly code: 'takes-undecided' | 'plan-refused';
  readonly message: string;
  readonly details: readonly { readonly file: null; readonly field: string; readonly message: string }[];
}

/**
 * Why the takes of a turn cannot become a run; null where they can.
 *
 * @param takes - all of the turn
 * @param tables - as they are filled in
 * @param withUndecided - whether takes that nobody decided on may stay beside the run
 * @param titleOf - title of a step by its id
 */
export function turnRefusal(
  takes: readonly FinishedTake[],
  tables: readonly Pick<TableReading, 'cells'>[],
  withUndecided: boolean,
  titleOf: (step: string) => string,
): TurnRefusal | null {
  const undecided = undecidedTakes(takes);
  if (undecided.length > 0 && !withUndecided)
    return {
      code: 'takes-undecided',
      message: 'Nobody has decided on some takes of this unit yet.',
      details: undecided.map((t) => ({
        file: null,
        field: t.step,
        message: `take ${t.attempt} is neither kept nor put aside`,
      })),
    };
  const kept = takes.filter((t) => t.state === 'kept');
  const refused = (message: string): TurnRefusal => ({ code: 'plan-refused', message, details: [] });
  if (kept.length === 0 && !tables.some((t) => t.cells.length > 0))
    return refused('No take of this unit is kept yet, and no table filled in.');
  const withoutGain = kept.find((t) => t.gainDb === null && t.dial.trim() === '');
  return withoutGain
    ? refused(
        `The gain of "${titleOf(withoutGain.step)}", take ${withoutGain.attempt}, is not noted. Correct its settings in the booth: decibels, the place of the dial, “auto”, or “unknown”; 0 where nothing can be turned.`,
      )
    : null;
}

/**
 * Findings that forbid keeping a take: of no use as it is, and nobody has said why it is kept all the same.
 *
 * @param findings - of the take
 * @param overruled - those that a reason was given for
 */
export const unanswered = <T extends { readonly check: string; readonly weight: string }>(
  findings: readonly T[],
  overruled: readonly { readonly check: string }[],
): T[] => findings.filter((f) => f.weight === 'redo' && !overruled.some((o) => o.check === f.check));
