import { servesKind, type Protocol } from '#contracts/protocol';
import type { NewPlan } from '#contracts/session-plan';
import { unitKey } from '#contracts/unit-name';
import { servesOthers } from './serves-others';

/** What keeps a plan from being kept, and beside which field it is said. */
export interface PlanProblem {
  readonly field: string;
  readonly message: string;
}

/**
 * Everything that is wrong with a plan by itself and its protocol.
 *
 * @param protocol - the version that the plan names; null where there is none
 */
export function planProblems(
  plan: Pick<NewPlan, 'category' | 'protocol' | 'protocolVersion' | 'units' | 'controlSteps'>,
  protocol: Protocol | null,
): PlanProblem[] {
  if (!protocol)
    return [{ field: 'protocol', message: `there is no version ${plan.protocolVersion} of "${plan.protocol}"` }];
  const problems: PlanProblem[] = [];
  if (!servesKind(protocol, plan.category)) {
    problems.push({ field: 'category', message: servesOthers(protocol.name, protocol, plan.category) });
  }
  const names = plan.units.map(unitKey);
  names.forEach((name, i) => {
    if (names.indexOf(name) < i) problems.push({ field: `units[${i}]`, message: 'this unit is there twice' });
  });
  const strange = plan.controlSteps.filter((step) => !protocol.steps.some((s) => s.id === step));
  if (strange.length > 0)
    problems.push({ field: 'controlSteps', message: `the protocol has no step ${strange.join(', ')}` });
  return problems;
}

/** The rig of a plan's day, and the kind of its control unit; null for each where none is noted. */
export interface RigOfPlan {
  readonly name: string;
  readonly control: { readonly category: string } | null;
}

/**
 * Why a plan that wants to open and close with the rig's control unit cannot; null where it can, or wants none.
 *
 * @param rig - the rig on that day; null where none is noted
 */
export function controlProblem(
  plan: Pick<NewPlan, 'withControl' | 'day' | 'category'>,
  rig: RigOfPlan | null,
): PlanProblem | null {
  if (!plan.withControl) return null;
  const say = (message: string): PlanProblem => ({ field: 'withControl', message });
  if (!rig)
    return say(`no rig is noted for ${plan.day}, so there is no control unit; note one on the page Rigs, or plan without`); // prettier-ignore
  if (!rig.control)
    return say(`the rig "${rig.name}" has no control unit; choose one on the page Rigs, or plan without`);
  return rig.control.category === plan.category
    ? null
    : say(`the control unit of "${rig.name}" is gear of another kind; plan without, or on another rig`);
}
