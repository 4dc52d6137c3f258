/** One listener at one test. */
export interface SittingRow {
  readonly id: string;
  readonly test_id: string;
  readonly listener_id: string;
  readonly listener: string;
  readonly about: unknown;
  readonly ordinal: number;
  readonly key: string;
  /** Of the server alone: this listener's own chance. */
  readonly secret: string;
  readonly same_as: string | null;
  readonly headphones: unknown;
  readonly finished_at: Date | null;
  readonly left_out: string | null;
}
