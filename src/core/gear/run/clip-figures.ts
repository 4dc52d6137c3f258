import type { Measurement } from '../../measure/measurement';
import type { QuantityId } from '../../measure/registry';
import { lastTake, type AnalysedTake } from './analysed-take';

/**
 * Figures of single clips that say something of the unit.
 *
 * @param takes - of the run
 * @param wanted - each figure, and the role of the take that it is read from
 */
export function clipFigures(
  takes: readonly AnalysedTake[],
  wanted: readonly (readonly [QuantityId, string])[],
): Measurement[] {
  return wanted.flatMap(([id, role]) => lastTake(takes, role)?.clip.filter((m) => m.quantity === id) ?? []);
}
