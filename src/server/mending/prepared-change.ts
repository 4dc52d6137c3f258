import type { Change } from '#contracts/correction';
import { Failure } from '../platform/failure';
import type { Queryable } from '../platform/db/database';
import { isLeftOut, leaveOut } from './queries/correction';

/** What a change would do: what stands now, in the shape of a change, and what it is about. */
export interface PreparedChange {
  readonly before: Change;
  readonly text: string;
  readonly specimens: readonly string[];
  /** Runs whose figures hang on it. */
  readonly runs: readonly string[];
  /** Clips that have to be measured for it. */
  readonly clips?: readonly string[];
  /** Answers count, or count no longer. */
  readonly movesAnswers?: boolean;
  readonly apply: (tx: Queryable) => Promise<void>;
}

/** The change of a kind. */
export type ChangeOf<K extends Change['kind']> = Extract<Change, { kind: K }>;

export const refused = (message: string): Failure => new Failure('correction-refused', message);

/**
 * Leaving a row out, or taking it back.
 *
 * @throws Failure `not-found`, `correction-refused` where it is so already
 */
export async function left(
  db: Queryable,
  what: Parameters<typeof leaveOut>[1],
  id: string,
  isOut: boolean,
): Promise<Pick<PreparedChange, 'apply'>> {
  const now = await isLeftOut(db, what, id);
  if (now === null) throw new Failure('not-found', `There is no such ${what}.`);
  if (now === isOut) throw refused(isOut ? 'It is left out already.' : 'It counts already.');
  return { apply: (tx) => leaveOut(tx, what, id, isOut) };
}
