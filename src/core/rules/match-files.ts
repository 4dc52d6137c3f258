/** A step that files can be matched to. */
export interface MatchableStep {
  readonly id: string;
  readonly title: string;
  /** Fragments of file names that point to this step. */
  readonly fileHints: readonly string[];
}

/** Which step a file seems to be, and why. */
export interface FileMatch {
  readonly file: string;
  readonly step: string | null;
  readonly reason: string;
}

/**
 * Proposes a step for each file: by what its name says, and what is left over in the order of names. Where two names
 * point to one step, the longer hint wins, then the earlier name; the other is another take of it where its name points
 * nowhere else. By the order of names, a step is given away once.
 *
 * @param files - names
 * @param steps - in the order of the protocol
 * @param given - ids of steps that have a file already
 * @returns one entry per file, in the order given
 */
export function matchFiles(
  files: readonly string[],
  steps: readonly MatchableStep[],
  given: ReadonlySet<string> = new Set(),
): FileMatch[] {
  const candidates = files.flatMap((file) =>
    steps.flatMap((step) => {
      const hint = longestHint(file, step.fileHints);
      return hint ? [{ file, step, hint }] : [];
    }),
  );
  candidates.sort((a, b) => b.hint.length - a.hint.length || files.indexOf(a.file) - files.indexOf(b.file));
  const matches = new Map<string, FileMatch>();
  const taken = new Set<string>(given);
  for (const { file, step, hint } of candidates) {
    if (matches.has(file) || taken.has(step.id)) continue;
    matches.set(file, { file, step: step.id, reason: `the name says "${hint}"` });
    taken.add(step.id);
  }
  for (const { file, step, hint } of candidates) {
    if (!matches.has(file)) matches.set(file, { file, step: step.id, reason: `the name says "${hint}": another take of it` }); // prettier-ignore
  }
  const unnamed = files.filter((f) => !matches.has(f)).sort(byName);
  const free = steps.filter((s) => !taken.has(s.id));
  unnamed.forEach((file, i) => {
    const step = free.at(i);
    if (step) matches.set(file, { file, step: step.id, reason: 'by the order of the names' });
  });
  return files.map((file) => matches.get(file) ?? { file, step: null, reason: 'no step is left for it' });
}

/** The longest fragment that a name holds, or null. */
export function longestHint(file: string, hints: readonly string[]): string | null {
  const name = file.toLowerCase();
  return hints
    .filter((h) => name.includes(h.toLowerCase()))
    .reduce<string | null>((best, h) => (best && best.length >= h.length ? best : h), null);
}

/** Numbers in names count as numbers: take 2 comes before take 10. */
export function byName(a: string, b: string): number {
  const parts = (s: string): string[] => s.toLowerCase().match(/\d+|\D+/g) ?? [];
  const left = parts(a);
  const right = parts(b);
  for (let i = 0; i < Math.min(left.length, right.length); i++) {
    const difference = Number(left[i]) - Number(right[i]);
    if (Number.isFinite(difference) && difference !== 0) return difference;
    if (!Number.isFinite(difference) && left[i] !== right[i]) return left[i] < right[i] ? -1 : 1;
  }
  return left.length - right.length;
}
