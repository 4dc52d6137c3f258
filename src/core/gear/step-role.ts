import type { ContentKind } from '../rules/file-content';
import type { PlayKind } from '../rules/step-sheet';

/** Where a step's take is expected to lie among those of other steps that sound alike. */
export interface ExpectedLevel {
  /** Steps that are told apart by level: "distance", "facing" … */
  readonly group: string;
  /** What takes of this group hold; others say nothing of it. */
  readonly holds: ContentKind;
  /** What is played, where only some steps of the role belong to the group. */
  readonly playKind?: PlayKind;
  /** Level re the group's first step, in decibels, as a usual unit would give it. */
  readonly expectedDb: (step: { readonly distanceM: number | null; readonly angleDeg: number | null }) => number;
  /** How much the level says, 0…1, beside name, order and content. */
  readonly weight: number;
}

/** What a step of a protocol is for: it decides what is measured of its takes, and how a file of it is known. */
export interface StepRoleDefinition {
  readonly id: string;
  /** What a person reads. */
  readonly name: string;
  /** What is said or played where the step does not say so itself; null: nothing is known. */
  readonly plays: PlayKind | null;
  /** Whether a take of it is the answer to the protocol's sweep. */
  readonly answersSweep?: boolean;
  /** Which level a take of it has a level of its own at: a calibrator's, or a tone's at the input. */
  readonly levelIn?: 'dB SPL' | 'dBu';
  /** Whether a take of it is read as steady tones. */
  readonly holdsTones?: boolean;
  readonly expectedLevel?: ExpectedLevel;
  /** Whether puffs of air in a take speak for it. */
  readonly hasPuffs?: boolean;
}
