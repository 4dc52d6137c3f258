import { CODE_NAMES } from '#core/rules/listening/code-names';
import { letterOf } from '#core/rules/listening/letters';
import { timesIn, matchingWords } from '#core/rules/listening/plain-words';
import { shuffled } from '#core/stats/shuffle';
import { chiSquaredTail } from '#core/stats/chi-squared';
import { matchingTail, matchingTailOfRounds } from '#core/stats/matching';
import type { Answer, Reveal, TestPage, TrialDocument } from '#contracts/listening';
import { codeOf, itemOfCode } from './heard-from-answer';
import { packListeners, pollListened } from './pack-listeners';
import { isRanked } from './trial-plan';
import type { ItemRow } from './test-item';

type Sentence = NonNullable<TestPage['result']>['sentences'][number];
interface Returned {
  readonly trials: readonly { readonly trial: TrialDocument; readonly answer: Answer | null }[];
}
const together = (words: string): Sentence => ({ about: 'Together', words });
const percent = (share: number): string => `${Math.round(100 * share)} %`;

/**
 * What answers that came back from a pack allow to say, of all listeners together.
 *
 * @param items - of the test, in the order of their letters
 * @param counted - those whose answers count
 * @param all - with those who were left out: they tell whether people listened
 */
export function packSentences(
  items: readonly ItemRow[],
  counted: readonly Returned[],
  all: readonly Returned[],
): Sentence[] {
  return [...checkSentences(items, all), ...guessSentences(items, counted), ...voteSentences(items, counted)];
}

/** Whether they listened at all. */
function checkSentences(items: readonly ItemRow[], all: readonly Returned[]): Sentence[] {
  // A poll says by itself how many listened.
  if (all.every(({ trials }) => pollListened(trials, items) !== null)) return [];
  const { passed, failed, share, share90 } = packListeners(
    all.map((a) => a.trials),
    items,
  );
  const checked = passed + failed;
  if (checked === 0)
    return [together(`No answer tells whether its listener listened: each counts as half of one of a test held here.`)];
  return [
    together(
      `${passed} of ${checked} put the copy without highs below its original; who guesses does so half of the time. ` +
        `About ${percent(share)} listened (nine times in ten between ${percent(share90[0])} and ${percent(share90[1])}): ` +
        `answers weigh by that, and those of the ${failed} who failed weigh nothing.`,
    ),
  ];
}

/** Right names against guessing: of all, and of the best of them. */
function guessSentences(items: readonly ItemRow[], all: readonly Returned[]): Sentence[] {
  const rounds = all.flatMap(({ trials }) =>
    trials.flatMap(({ trial, answer }) => {
      if (trial.kind !== 'names' || answer?.kind !== 'names') return [];
      const right = trial.items.filter((id, i) => items.find((x) => x.id === id)?.specimen_id === answer.names[codeOf(i)]); // prettier-ignore
      return [{ right: right.length, clips: trial.items.length }];
    }),
  );
  if (rounds.length === 0) return [];
  const right = rounds.reduce((sum, r) => sum + r.right, 0);
  const clips = rounds.reduce((sum, r) => sum + r.clips, 0);
  const most = Math.max(...rounds.map((r) => r.right));
  const many = rounds.filter((r) => r.right === most).length;
  const byChance = rounds.reduce((sum, r) => sum + matchingTail(most, r.clips), 0);
  return [
    together(
      matchingWords(
        right,
        clips,
        matchingTailOfRounds(
          right,
          rounds.map((r) => r.clips),
        ),
      ),
    ),
    ...(most === 0 || rounds.length < 2
      ? []
      : [together(`The best guess has ${most} of ${rounds[0].clips} right, ${many === 1 ? 'once' : `${many} times`} among ${rounds.length}; as many guessers have that or better ${byChance.toFixed(byChance < 0.095 ? 2 : 1)} times.`)]), // prettier-ignore
  ];
}

/** A poll's votes against equal ones; the copy without highs is no candidate, it tells whether voters listened. */
function voteSentences(items: readonly ItemRow[], all: readonly Returned[]): Sentence[] {
  return all.flatMap(({ trials }) =>
    trials.flatMap(({ trial, answer }): Sentence[] => {
      if (trial.kind !== 'votes' || answer?.kind !== 'votes') return [];
      const counts = Object.entries(answer.votes).flatMap(([code, n]) => {
        const item = items.find((i) => i.id === itemOfCode(trial, code));
        return item && isRanked(item) ? [{ name: nameOf(item), n }] : [];
      });
      const votes = counts.reduce((sum, { n }) => sum + n, 0);
      if (votes === 0 || counts.length < 2) return [];
      const listened = pollListened(trials, items);
      const checked = listened === null ? [] : [together(`Of the voters about ${percent(listened)} listened, as the votes for the copy without highs tell: who guesses divides evenly. Their votes weigh by that.`)]; // prettier-ignore
      const expected = votes / counts.length;
      if (expected < 5)
        return [together(`${votes} votes: too few for a word on chance (five for each clip at least).`), ...checked];
      const chi = counts.reduce((sum, { n }) => sum + (n - expected) ** 2 / expected, 0);
      const first = counts.reduce((a, b) => (b.n > a.n ? b : a));
      const p = chiSquaredTail(chi, counts.length - 1);
      const chance = `Voters without any preference divide as unequally ${timesIn(p)}${p <= 0.05 ? '.' : ': no favourite is shown.'}`;
      return [
        together(`${votes} votes: ${first.name} has ${first.n} (${percent(first.n / votes)}). ${chance}`),
        ...checked,
      ];
    }),
  );
}

const PART_WORDS: Partial<Record<ItemRow['role'], string>> = { 'known-worse': 'copy without highs', yardstick: 'yardstick' }; // prettier-ignore

/**
 * The draw of a pack: the first goes out under the first code name.
 *
 * @param items - of the test
 * @param secret - of the test: nobody who knows the clips can work it out
 */
export const drawCodeNames = <T>(items: readonly T[], secret: string): T[] => shuffled(items, `${secret}/code names`);

/** What a clip of a pack is there for, where it is not a unit that is ranked. */
export const partWords = ({ role }: Pick<ItemRow, 'role'>): string => PART_WORDS[role] ?? '';

const nameOf = (item: ItemRow): string => (isRanked(item) ? item.name : `${partWords(item)} of ${item.name}`);

/** The key, once for all: which code name was what. Items in the order of their letters. */
export function packReveal(items: readonly ItemRow[]): Reveal[] {
  return [
    {
      listener: 'The key',
      leftOut: null,
      sentences: [],
      trials: [
        {
          kind: 'pack',
          words: 'Code names as they were drawn:',
          items: items.map((item, i) => ({
            code: `${letterOf(i)} · ${CODE_NAMES[i]}`,
            name: nameOf(item),
            role: item.role,
            rating: null,
          })),
        },
      ],
    },
  ];
}
