/** An answer as it names its units. */
export interface NamedAnswer {
  readonly id: string;
  readonly specimens: readonly string[];
}

/** A run as far as it can be the same as another. */
export interface ComparedRun {
  readonly id: string;
  readonly specimenId: string;
  readonly day: string;
  readonly protocolVersionId: string;
  readonly purpose: string;
  /** Step and clip of each of its takes. */
  readonly takes: readonly string[];
}

/** Where an answer names a unit. */
export interface AnswerPlace {
  readonly id: string;
  /** From 0. */
  readonly index: number;
}

/** What becomes of answers about two units that are one. */
export interface MergedAnswers {
  /** Where answers name the other unit from now on. */
  readonly renamed: readonly AnswerPlace[];
  /** Answers that held the two against each other: they say nothing any more. */
  readonly dropped: readonly string[];
}

/**
 * Answers of a unit that is another one.
 *
 * @param answers - answers that name the unit, whether they count or not
 * @param unit - the one that was entered a second time
 * @param into - the one that it is
 */
export function mergedAnswers(
  answers: readonly (NamedAnswer & { readonly counts: boolean })[],
  unit: string,
  into: string,
): MergedAnswers {
  return {
    renamed: answers.map((a) => ({ id: a.id, index: a.specimens.indexOf(unit) })),
    dropped: answers.filter((a) => a.counts && a.specimens.includes(into)).map((a) => a.id),
  };
}

/**
 * Runs of one unit that are runs of the other: the same clips in the same steps, on the same day and by the same version
 * of the protocol. They were brought in under both names and count once.
 *
 * @param runs - runs of both that count
 * @param unit - the one that was entered a second time; its runs are the ones that stop counting
 * @returns ids of its runs that the other has
 */
export function runsCountedTwice(runs: readonly ComparedRun[], unit: string): string[] {
  const key = (r: ComparedRun): string => JSON.stringify([r.day, r.protocolVersionId, r.purpose, [...r.takes].sort()]);
  const others = new Set(runs.filter((r) => r.specimenId !== unit).map(key));
  return runs.filter((r) => r.specimenId === unit && others.has(key(r))).map((r) => r.id);
}
