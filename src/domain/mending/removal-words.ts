import type { Removable } from '#contracts/removal';

/** What hangs on something that is to be deleted. */
export interface RemovalCounts {
  readonly runs: number;
  readonly takes: number;
  /** Attempts of the booth that became no take. */
  readonly attempts: number;
  /** Clips that nothing else uses, and clips that something else does. */
  readonly clips: number;
  readonly sharedClips: number;
  readonly figures: number;
  readonly tables: number;
  readonly prices: number;
  readonly points: number;
  readonly sheetEntries: number;
  readonly events: number;
  readonly relations: number;
  /** With all of their editions. */
  readonly reviews: number;
  readonly photographs: number;
  readonly corrections: number;
  /** Answers that name the unit. */
  readonly answers: number;
  readonly words: number;
  /** Units that were merged into it. */
  readonly parts: number;
  /** Listening tests that go with the unit, by name. */
  readonly tests: readonly string[];
  /** Tests that keep their answers and lose the clip of the take, by name. */
  readonly testsWithoutClip: readonly string[];
}

/** What deleting takes with it, and what stays, a line each; what is not there is not named. */
export function removalLines(what: Removable, counts: RemovalCounts): { goes: string[]; stays: string[] } {
  const line = (n: number, one: string, many: string): string[] => (n === 0 ? [] : [n === 1 ? one : `${n} ${many}`]);
  const goes = [
    ...(what === 'unit' ? ['the unit itself'] : []),
    ...line(counts.parts, 'a unit that was merged into it', 'units that were merged into it'),
    ...(what === 'take' ? [] : line(counts.runs, 'one run', 'runs')),
    ...line(counts.takes, 'one take', 'takes'),
    ...line(counts.attempts, 'one attempt of the booth beside it', 'attempts of the booth beside them'),
    ...line(counts.clips, 'one clip: its file, waveform, segments and picture', 'clips: files, waveforms, segments and pictures'), // prettier-ignore
    ...(what === 'take' ? [] : line(counts.figures, 'one figure of its runs', 'figures of its runs')),
    ...line(counts.tables, 'one filled-in table', 'filled-in tables'),
    ...line(counts.points, 'points for one criterion', 'points by hand'),
    ...line(counts.prices, 'one price', 'prices'),
    ...line(counts.sheetEntries, 'one entry of its data sheet', 'entries of its data sheet'),
    ...line(counts.events, 'one note of what happened to it', 'notes of what happened to it'),
    ...line(counts.photographs, 'one photograph', 'photographs'),
    ...line(counts.relations, 'one relation to another unit', 'relations to other units'),
    ...line(counts.reviews, 'one review, with every edition of it that was published', 'reviews, with every edition of them that was published'), // prettier-ignore
    ...line(counts.answers, 'one answer of listeners', 'answers of listeners'),
    ...line(counts.words, 'one word that was said of it', 'words that were said of it'),
    ...counts.tests.map((name) => `the listening test “${name}”, with its sittings and results`),
    ...counts.testsWithoutClip.map((name) => `the clip of the listening test “${name}”`),
    ...line(counts.corrections, 'one line under “Corrections”', 'lines under “Corrections”'),
  ];
  const stays = [
    ...line(counts.sharedClips, 'one clip that something else uses', 'clips that something else uses'),
    ...(counts.tests.length > 0 ? ['answers of those tests about other units'] : []),
    ...(counts.testsWithoutClip.length > 0 ? ['answers that were given in those tests'] : []),
    ...(what === 'take' ? ['the other takes of the run; its figures are made anew without this one'] : []),
    'copies that were made elsewhere: exports, backups, published files',
  ];
  return { goes, stays };
}
