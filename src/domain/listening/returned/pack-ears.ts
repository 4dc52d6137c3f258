import { letterOf } from '#core/rules/listening/letters';

/** What answers to a pack may speak of. */
export interface PackEars {
  /** First signs of the key's hash. */
  readonly tag: string;
  /** Code names, in the order of their letters. */
  readonly clips: readonly string[];
  /** Units in the order in which the pack offers their names. */
  readonly units: readonly { readonly specimenId: string; readonly name: string }[];
}

/** Letters of a pack. */
export const lettersOf = (pack: Pick<PackEars, 'clips'>): string[] => pack.clips.map((_, i) => letterOf(i));

/** What one answer says, as it was understood. */
export interface Understood {
  /** Letters, best first. */
  readonly order: readonly string[];
  readonly best: string | null;
  readonly points: Readonly<Record<string, number>>;
  /** Units by letters. */
  readonly names: Readonly<Record<string, string>>;
  readonly votes: Readonly<Record<string, number>> | null;
  readonly doubts: readonly string[];
  readonly problem: string | null;
}

export const NOTHING: Understood = { order: [], best: null, points: {}, names: {}, votes: null, doubts: [], problem: null }; // prettier-ignore

export const refused = (problem: string): Understood => ({ ...NOTHING, problem });

/** Whether anything was said at all. */
export const saysSomething = (u: Omit<Understood, 'doubts' | 'problem'>): boolean =>
  u.order.length > 0 ||
  u.best !== null ||
  u.votes !== null ||
  [u.points, u.names].some((r) => Object.keys(r).length > 0);
