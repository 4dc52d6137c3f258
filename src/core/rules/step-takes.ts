import { areOtherConditions, type ConditionSettings } from './take-conditions';

/** What is known of an attempt at a step, as far as the choice between attempts needs it. */
export interface StepTake {
  readonly id: string;
  readonly step: string;
  readonly attempt: number;
  readonly state: 'open' | 'kept' | 'retaken';
}

/** An attempt with what was noted of it. */
export interface NotedStepTake extends StepTake {
  readonly settings: ConditionSettings;
}

const ofStep = <T extends StepTake>(takes: readonly T[], step: string): T[] =>
  takes.filter((t) => t.step === step).sort((a, b) => a.attempt - b.attempt);

/**
 * The take of a step that counts: the kept one, else the newest that nobody has replaced.
 *
 * @param takes - of one unit's turn, any steps, in any order
 * @returns null where there is none
 */
export function takeThatCounts<T extends StepTake>(takes: readonly T[], step: string): T | null {
  const own = ofStep(takes, step);
  return own.findLast((t) => t.state === 'kept') ?? own.findLast((t) => t.state === 'open') ?? null;
}

/**
 * The take of a step that is to be looked at: the one that was picked; else the newest that waits for a decision, also
 * where an earlier one is kept already; else the kept one.
 *
 * @param takes - of one unit's turn, any steps, in any order
 * @param step - its id
 * @param picked - id of a take that somebody has picked from the list, or null
 * @returns null where every attempt was put aside, or there is none
 */
export function takeToShow<T extends StepTake>(takes: readonly T[], step: string, picked: string | null): T | null {
  const own = ofStep(takes, step);
  return own.find((t) => t.id === picked) ?? own.findLast((t) => t.state === 'open') ?? takeThatCounts(own, step);
}

/**
 * Which takes of a step stay kept once one of them is chosen: the chosen one, those of other voices, places and mounts,
 * and of the others that were kept the latest, as many as the step repeats. A take that names nothing is replaced by one
 * that does: the name was forgotten before.
 *
 * @param takes - of one step
 * @param chosen - id of the take that is kept now
 * @param repeats - how many takes the step asks for, at least 1
 */
export function keptAfterChoosing(takes: readonly NotedStepTake[], chosen: string, repeats: number): Set<string> {
  const now = takes.find((t) => t.id === chosen)?.settings ?? {};
  const kept = takes.filter((t) => t.state === 'kept' && t.id !== chosen);
  const beside = kept.filter((t) => areOtherConditions(t.settings, now));
  const others = kept
    .filter((t) => !beside.includes(t))
    .sort((a, b) => b.attempt - a.attempt)
    .slice(0, Math.max(0, repeats - 1));
  return new Set([chosen, ...beside.map((t) => t.id), ...others.map((t) => t.id)]);
}

/** Takes that nobody has decided on, in order: a run that is made now leaves them beside it. */
export const undecidedTakes = <T extends Pick<StepTake, 'state'>>(takes: readonly T[]): T[] =>
  takes.filter((t) => t.state === 'open');
