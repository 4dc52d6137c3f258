import { shuffled } from '#core/stats/shuffle';
import type { Protocol } from '#contracts/protocol';
import type { NewPlan, PlannedUnit } from '#contracts/session-plan';

/** A turn of a session: whose, what for, and the steps of the protocol that it goes through. */
export interface PlannedSlot {
  readonly purpose: 'opening' | 'unit' | 'closing';
  readonly unit: PlannedUnit;
  readonly steps: readonly string[];
}

/**
 * The turns of a session in their order. The control unit opens and closes it, so that a rig that moved meanwhile is
 * noticed; it goes through the steps that are asked for, or through all.
 *
 * @param control - null where the session goes without
 * @param seed - of the order, where it is left to chance
 */
export function plannedSlots(
  plan: Pick<NewPlan, 'units' | 'randomised' | 'controlSteps'>,
  protocol: Pick<Protocol, 'steps'>,
  control: PlannedUnit | null,
  seed: string,
): PlannedSlot[] {
  const all = protocol.steps.map((s) => s.id);
  const units = plan.randomised ? shuffled(plan.units, seed) : plan.units;
  const slots = units.map((unit): PlannedSlot => ({ purpose: 'unit', unit, steps: all }));
  if (!control) return slots;
  const steps = all.filter((s) => plan.controlSteps.length === 0 || plan.controlSteps.includes(s));
  return [{ purpose: 'opening', unit: control, steps }, ...slots, { purpose: 'closing', unit: control, steps }];
}
