import { unitName } from '#contracts/unit-name';
import { Failure } from '../platform/failure';
import type { Queryable } from '../platform/db/database';
import { refused, type ChangeOf, type PreparedChange } from './prepared-change';
import { findAnswer, setAnswerRemoved } from './queries/answer';
import { namesOf } from './queries/correction';

/** An answer counts, or does not. */
export async function leaveAnswer(
  db: Queryable,
  change: ChangeOf<'answer-left-out'>,
  now: () => Date,
): Promise<PreparedChange> {
  const { answer, isOut } = change;
  const row = await findAnswer(db, answer);
  if (!row) throw new Failure('not-found', 'There is no such answer.');
  if ((row.removed_at !== null) === isOut) throw refused(isOut ? 'It is left out already.' : 'It counts already.');
  const names = await Promise.all(row.specimens.map(async (id) => (await namesOf(db, id)) ?? null));
  if (!isOut && (names.includes(null) || new Set(row.specimens).size < row.specimens.length))
    throw refused('It holds a unit against itself, or one that is not there any more.');
  const units = names.flatMap((n) => (n ? [unitName(n)] : []));
  return {
    before: { ...change, isOut: !isOut },
    text: `Answer of ${row.day} about ${units.join(', ')} ${isOut ? 'left out' : 'taken back'}`,
    specimens: row.specimens,
    runs: [],
    movesAnswers: true,
    apply: (tx) => setAnswerRemoved(tx, answer, isOut ? now() : null),
  };
}
