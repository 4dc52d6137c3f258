import type { QuantityId } from './registry';

/** Scatter of the blocks (or repeats) that a figure is the average of. */
export interface Spread {
  /** Standard deviation over the blocks, in the unit of the figure. */
  readonly sd: number;
  readonly count: number;
  /** What a block is, e.g. "gating blocks of 400 ms". */
  readonly of: string;
}

/** Whether a figure is the value itself or only a limit to it. */
export type Bound = 'exact' | 'at-least' | 'at-most';

/** One measured figure with everything that a reader needs to judge it. */
export interface Measurement {
  readonly quantity: QuantityId;
  /** In the unit the registry gives; null where it could not be measured, with the reason in `notMeasured`. */
  readonly value: number | null;
  readonly bound: Bound;
  /** Weighting, band, reference and window, in words. */
  readonly condition: string;
  readonly spread: Spread | null;
  /** Standard uncertainty (JCGM 100, one standard deviation), same unit; null where it cannot be estimated. */
  readonly uncertainty: number | null;
  readonly notMeasured: string | null;
  readonly settings: Readonly<Record<string, number | string | boolean>>;
}

/** A figure that could not be had, and why. */
export function notMeasured(quantity: QuantityId, condition: string, reason: string): Measurement {
  return {
    quantity,
    value: null,
    bound: 'exact',
    condition,
    spread: null,
    uncertainty: null,
    notMeasured: reason,
    settings: {},
  };
}

/** A figure, with the defaults that most figures share. */
export function measured(
  quantity: QuantityId,
  value: number,
  condition: string,
  rest: Partial<Omit<Measurement, 'quantity' | 'value' | 'condition' | 'notMeasured'>> = {},
): Measurement {
  return {
    quantity,
    value,
    condition,
    bound: rest.bound ?? 'exact',
    spread: rest.spread ?? null,
    uncertainty: rest.uncertainty ?? null,
    notMeasured: null,
    settings: rest.settings ?? {},
  };
}
