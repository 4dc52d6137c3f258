import { turnedGain } from '#core/rules/gain-group';
import type { NotedGain } from '#core/rules/take-gain';
import { takeThatCounts } from '#core/rules/step-takes';
import type { Plan, Slot, SlotTake } from '#contracts/session-plan';
import type { Step } from '#contracts/protocol';

/** Where a step of a unit stands. */
export type StepState = 'kept' | 'open' | 'redo' | 'empty';

/** The take of a step that counts: the kept one, else the newest that nobody has replaced. */
export const takeOfStep = (slot: Slot, step: string): SlotTake | null => takeThatCounts(slot.takes, step);

export function stepState(slot: Slot, step: Step): StepState {
  if (step.table) return slot.tables.some((t) => t.step === step.id && t.cells.length > 0) ? 'kept' : 'empty';
  const take = takeOfStep(slot, step.id);
  if (!take) return 'empty';
  if (take.state === 'kept') return 'kept';
  return take.verdict === 'redo' ? 'redo' : 'open';
}

/** Steps of a slot, in the order of the protocol. */
export const stepsOf = (plan: Plan, slot: Slot): Step[] => plan.protocol.steps.filter((s) => slot.steps.includes(s.id));

export const keptCount = (plan: Plan, slot: Slot): number =>
  stepsOf(plan, slot).filter((s) => stepState(slot, s) === 'kept').length;

/** The slot and the step where work goes on: the first that is not kept, in the first unit that is no run yet. */
export function whereToGoOn(plan: Plan): { slot: Slot; step: Step } | null {
  const slot = plan.slots.find((s) => s.runId === null);
  if (!slot) return null;
  const steps = stepsOf(plan, slot);
  const step = steps.find((s) => stepState(slot, s) !== 'kept') ?? steps.at(-1);
  return step ? { slot, step } : null;
}

export const PURPOSE_NAMES = { opening: 'Opens the session', unit: '', closing: 'Closes the session' } as const;

/** Gain that the rule of a step gives today: decibels, or a place of the dial, where it or another step decides it. */
export function ruledGain(slot: Slot, step: Step): NotedGain | null {
  const rule = step.gain;
  if (rule?.rule === 'fixed') return { gainDb: rule.gainDb, dial: '' };
  if (rule?.rule === 'dial') return { gainDb: null, dial: rule.position };
  if (rule?.rule !== 'as-step') return null;
  const reference = takeOfStep(slot, rule.step)?.settings;
  if (!reference) return null;
  const { gainDb, dial } = reference;
  if (gainDb !== null) return { gainDb: turnedGain(gainDb, rule.byDb), dial: '' };
  // How far the dial must be turned for so many decibels is not known.
  return rule.byDb === 0 && dial !== '' ? { gainDb: null, dial } : null;
}
