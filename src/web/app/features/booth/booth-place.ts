import type { Plan } from '#contracts/session-plan';
import { stepsOf, stepState, whereToGoOn } from '../sessions/session-progress';

/** Where in a session somebody works: the turn of a unit, and the step in it. */
export interface BoothPlace {
  readonly slot: string;
  readonly step: string;
}

/** Where work goes on; the beginning where all of it is done. */
export function startPlace(plan: Plan): BoothPlace {
  const at = whereToGoOn(plan) ?? { slot: plan.slots[0], step: plan.protocol.steps[0] };
  return { slot: at.slot.id, step: at.step.id };
}

/** The first step of a unit's turn that is not kept, else its first one. Null for a turn that is not of the plan. */
export function placeInSlot(plan: Plan, slotId: string): BoothPlace | null {
  const slot = plan.slots.find((s) => s.id === slotId);
  if (!slot) return null;
  const steps = stepsOf(plan, slot);
  const step = steps.find((s) => stepState(slot, s) !== 'kept') ?? steps.at(0);
  return step ? { slot: slot.id, step: step.id } : null;
}

/** So many steps on or back within the turn; the same place where there is no such step. */
export function stepsOn(plan: Plan, at: BoothPlace, by: number): BoothPlace {
  const slot = plan.slots.find((s) => s.id === at.slot);
  const steps = slot ? stepsOf(plan, slot) : [];
  const to = steps.findIndex((s) => s.id === at.step) + by;
  return to >= 0 && to < steps.length ? { slot: at.slot, step: steps[to].id } : at;
}

/** After a unit's turn: the next unit that is no run yet, in the order of the plan. Null after the last one. */
export function placeAfterSlot(plan: Plan, slotId: string): BoothPlace | null {
  const done = plan.slots.find((s) => s.id === slotId);
  const next = plan.slots.find((s) => done && s.ordinal > done.ordinal && s.runId === null);
  return next ? placeInSlot(plan, next.id) : null;
}
