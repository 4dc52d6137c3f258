import { measured, notMeasured, type Measurement } from '../../measure/measurement';
import type { QuantityId } from '../../measure/registry';

/** One figure minus another of its kind; a limit of either is a limit of the difference only where the other is exact. */
export function figureBetween(
  id: QuantityId,
  condition: string,
  fitted: Measurement,
  without: Measurement,
  sign = 1,
): Measurement {
  if (fitted.value === null || without.value === null)
    return notMeasured(id, condition, fitted.notMeasured ?? without.notMeasured ?? 'It was not measured.');
  if (without.bound !== 'exact' || (fitted.bound !== 'exact' && sign < 0))
    return notMeasured(id, condition, 'One of the two is a limit only: what lies between them is not known.');
  return measured(id, sign * (fitted.value - without.value), condition, {
    bound: fitted.bound,
    uncertainty:
      fitted.uncertainty === null || without.uncertainty === null
        ? null
        : Math.hypot(fitted.uncertainty, without.uncertainty),
  });
}
