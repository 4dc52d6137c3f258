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
  /** What answers weigh that came back from outside; null for those that were given here. */
  readonly reliability: number | null;
  /** As it came back; null for what was given here. */
  readonly came_as: string | null;
}
