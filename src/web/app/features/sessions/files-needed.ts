import { notedGain } from '#core/rules/take-gain';

/** A file as far as taking it over goes. */
interface SortedFile {
  readonly name: string;
  readonly step: string | null;
  readonly gainDb: number | null;
  /** What stands in the place of decibels; '' where nothing is noted. */
  readonly dial: string;
  /** Set once it was taken over. */
  readonly taken: unknown;
}

/** Steps that several files are chosen for; what was taken over before makes way for another attempt. */
export function stepsTwice(files: readonly Pick<SortedFile, 'step' | 'taken'>[]): ReadonlySet<string> {
  const waiting = files.flatMap((f) => (f.taken === null ? (f.step ?? []) : []));
  return new Set(waiting.filter((step, i) => waiting.indexOf(step) < i));
}

/**
 * What is still needed before files can be taken over, in words; empty where nothing is.
 *
 * @param titleOf - name of a step on the screen
 */
export function neededOfFiles(files: readonly SortedFile[], titleOf: (step: string) => string): string[] {
  const used = files.filter((f) => f.step !== null);
  const withoutGain = used.filter((f) => notedGain(f) === null).map((f) => f.name);
  return [
    ...(used.every((f) => f.taken !== null) ? ['a step for at least one file'] : []),
    ...[...stepsTwice(files)].map((step) => `one file only for "${titleOf(step)}"`),
    ...(withoutGain.length > 0
      ? [`the gain of ${withoutGain.length === used.length ? 'every take' : withoutGain.join(', ')}`]
      : []),
  ];
}
