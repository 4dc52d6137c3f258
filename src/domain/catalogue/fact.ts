import type { Bound } from '#core/measure/measurement';

/** A figure as ranking needs it. */
export interface FactRow {
  readonly specimen_id: string;
  readonly quantity: string;
  readonly value: number | null;
  readonly uncertainty: number | null;
  readonly bound: Bound;
  readonly not_measured: string | null;
  readonly protocol: string;
  readonly protocol_version: number;
  readonly day: string;
  /** Upper limit of the band it was read in, in hertz; null where it has none. */
  readonly high_hz: number | null;
}
