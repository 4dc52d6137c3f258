/** What is said or played at a step. */
export const PLAY_KINDS = [
  'text',
  'phrase',
  'sung',
  'sweep',
  'noise',
  'tone',
  'recording',
  'silence',
  'knocks',
  'walk',
  'wind',
  'table',
] as const;
export type PlayKind = (typeof PLAY_KINDS)[number];

/** How the gain of a step is found. */
export type GainRule =
  | { readonly rule: 'fixed'; readonly gainDb: number }
  /** Highest sample of the take inside a window. */
  | { readonly rule: 'peaks'; readonly lowDbfs: number; readonly highDbfs: number }
  | { readonly rule: 'maximum' }
  | { readonly rule: 'dial'; readonly position: string }
  /** As it was at another step, turned by some decibels. */
  | { readonly rule: 'as-step'; readonly step: string; readonly byDb: number };

/** A step of a protocol as comparison and checks need it; the contract's step has this shape. */
export interface StepSheet {
  readonly id: string;
  readonly role?: string | undefined;
  readonly title: string;
  readonly purpose: string;
  readonly instruction: string;
  readonly play: { readonly kind: PlayKind; readonly text: string | null } | null;
  readonly distanceM: number | null;
  readonly angleDeg: number | null;
  readonly heightM: number | null;
  readonly address: 'end' | 'side' | null;
  readonly levelDbSpl: number | null;
  readonly levelDbu: number | null;
  readonly gain: GainRule | null;
  readonly lengthS: { readonly least: number; readonly most: number } | null;
  readonly repeats: number;
  readonly voices: readonly string[];
  readonly accessories: readonly string[];
  readonly pair: { readonly step: string; readonly varies: string } | null;
  readonly checks: readonly StepCheck[];
  readonly measures: readonly string[];
  readonly table: StepTable | null;
  /** Whether results go on being comparable with the version before, where that had to be decided. */
  readonly comparable: { readonly withPrevious: boolean; readonly reason: string } | null;
}

/** A check that a step asks for, with a limit of its own where the usual one does not do. */
export interface StepCheck {
  readonly check: string;
  readonly limit: number | null;
}

/** A table that is filled in at a step: one cell per row and column. */
export interface StepTable {
  readonly rowName: string;
  readonly rows: readonly string[];
  readonly columnName: string;
  readonly columns: readonly string[];
  /** What stands in a cell, e.g. "round trip", and its unit. */
  readonly cell: string;
  readonly unit: string;
  /** How a recording fills a cell; null: numbers are typed in only. */
  readonly fromFile: 'latency' | 'level' | null;
}

/** What comparison needs of a whole protocol version. */
export interface ProtocolSheet {
  readonly version: number;
  /** The passage that steps without a text of their own read. */
  readonly text: string | null;
  readonly sweep: unknown;
  readonly steps: readonly StepSheet[];
}
