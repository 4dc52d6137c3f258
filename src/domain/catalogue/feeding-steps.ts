import { quantity, type QuantityId } from '#core/measure/registry';
import { roleOf, type Step } from '#contracts/protocol';

type Feeding = Pick<Step, 'id' | 'role' | 'pair'>;

/**
 * Whether takes of a step feed a figure, by itself or together with those of others: by what the step is for; a figure
 * of pairs by whether it is half of one.
 *
 * @param id - the figure
 * @param step - of a protocol
 * @param steps - all of its protocol
 */
export function feedsFigure(id: QuantityId, step: Feeding, steps: readonly Feeding[]): boolean {
  const { group, steps: roles } = quantity(id);
  if (group === 'pair') return step.pair !== null || steps.some((s) => s.pair?.step === step.id);
  return roles.includes(roleOf(step));
}
