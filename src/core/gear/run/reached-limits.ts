import { measured, type Measurement } from '../../measure/measurement';
import type { RunCurves } from './analysed-take';

/**
 * Limits of a response that is flat as far as the sweep reaches: what does not fall is known to reach that far.
 *
 * @param figures - of the sweep
 * @param response - that they are of; null where there is none
 */
export function reachedLimits(figures: readonly Measurement[], response: RunCurves['response']): Measurement[] {
  if (!response) return [...figures];
  const lowest = Math.max(response.lowestValidHz, response.points.at(0)?.hz ?? Infinity);
  const highest = response.points.at(-1)?.hz ?? 0;
  return figures.map((m) => {
    if (m.value !== null) return m;
    const condition = `${m.condition}, as far as the sweep reaches`;
    if (m.quantity === 'responseLow3' || m.quantity === 'responseLow6')
      return measured(m.quantity, lowest, condition, { bound: 'at-most' });
    return m.quantity === 'responseHigh3' || m.quantity === 'responseHigh6'
      ? measured(m.quantity, highest, condition, { bound: 'at-least' })
      : m;
  });
}
