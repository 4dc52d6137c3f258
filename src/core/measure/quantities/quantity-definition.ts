/** Groups in which a reviewer thinks of a unit; "recording" is about a clip or a room, not the unit. */
export const QUANTITY_GROUPS = {
  drive: 'How loud it must be driven',
  noise: 'How noisy it is',
  sound: 'How it sounds',
  rejects: 'What it rejects',
  behaves: 'How it behaves',
  pair: 'With it and without it',
  recording: 'The recording itself',
} as const;
export type QuantityGroup = keyof typeof QUANTITY_GROUPS;

/** What is known of a measurement before it is made. */
export interface QuantityDefinition {
  readonly name: string;
  /** For headings of columns and places that are narrow, where the name is long. */
  readonly shortName?: string;
  /** Empty for a plain number. */
  readonly unit: string;
  /** Decimals that are shown; more would be noise. */
  readonly decimals: number;
  readonly definition: string;
  readonly source: string;
  readonly group: QuantityGroup;
  /** Steps of a protocol that are needed, or "any" for figures of a single clip. */
  readonly steps: readonly string[];
  /** Which way is better, for tables that mark the best; null where it depends. */
  readonly better: 'higher' | 'lower' | null;
}
