/** What the pauses of a clip show beside steady noise. */
export const NOISE_FINDING_KINDS = [
  'digital-silence',
  'padding',
  'click',
  'sound',
  'gate',
  'automatic-gain',
  'room-tail',
  'unsteady',
  'silence-step',
] as const;
export type NoiseFindingKind = (typeof NOISE_FINDING_KINDS)[number];

/** One of them, in words that name its size. */
export interface NoiseFinding {
  readonly kind: NoiseFindingKind;
  readonly text: string;
}

/** Findings as one line for a figure's settings; empty for none. */
export const findingsText = (findings: readonly NoiseFinding[]): string => findings.map((f) => f.text).join('; ');
