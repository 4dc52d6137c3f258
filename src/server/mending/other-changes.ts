import { correctionText, fieldChanges } from '#core/rules/correction-text';
import type { Change } from '#contracts/correction';
import { rigDocumentSchema } from '#contracts/rig';
import { Failure } from '../platform/failure';
import type { Queryable } from '../platform/db/database';
import { findRig } from '../rigs/queries/rig';
import { left, refused, type ChangeOf, type PreparedChange } from './prepared-change';
import { answersOfTest, correctRig, photographOf, takesOfSession, titleOf } from './queries/correction';

/** A rig on which nothing was made yet. */
export async function rerig(db: Queryable, change: ChangeOf<'rig'>): Promise<PreparedChange> {
  const row = await findRig(db, change.rig);
  if (!row) throw new Failure('not-found', `There is no rig ${change.rig}.`);
  if (row.runs > 0) throw refused('Runs were made on this rig as it is noted; note a change with its day instead.');
  const before = { ...change, document: rigDocumentSchema.parse(row.document) };
  const words = (d: Change & { kind: 'rig' }) =>
    Object.fromEntries(Object.entries(d.document).map(([k, v]) => [k, v === null ? '' : String(v)]));
  const text = correctionText(`Rig “${row.name}”`, fieldChanges(words(before), words(change)));
  if (text === null) throw refused('Nothing differs from what is noted.');
  const { name, since } = change.document;
  return {
    before,
    text,
    specimens: [],
    runs: [],
    apply: (tx) => correctRig(tx, change.rig, name, since, change.document),
  };
}

/** A photograph is shown, or is not. */
export async function leavePhotograph(db: Queryable, change: ChangeOf<'photograph-left-out'>): Promise<PreparedChange> {
  const apart = await left(db, 'photograph', change.photograph, change.isOut);
  const photo = await photographOf(db, change.photograph);
  const caption = photo.caption === '' ? '' : ` “${photo.caption}”`;
  return {
    ...apart,
    before: { ...change, isOut: !change.isOut },
    text: `Photograph of ${photo.day}${caption} ${change.isOut ? 'left out' : 'taken back'}`,
    specimens: [photo.specimen_id],
    runs: [],
  };
}

/** A session in which nothing was made, or a test that nobody sat. */
export async function leaveUnused(
  db: Queryable,
  what: 'session' | 'test',
  id: string,
  change: ChangeOf<'session-left-out' | 'test-left-out'>,
): Promise<PreparedChange> {
  const apart = await left(db, what, id, change.isOut);
  const used = what === 'session' ? await takesOfSession(db, id) : await answersOfTest(db, id);
  if (used > 0)
    throw refused(
      what === 'session'
        ? 'Takes were made in this session, so it stays; end it, or leave out its runs.'
        : 'Somebody has sat this test, so it stays.',
    );
  const title = (await titleOf(db, what, id)) ?? id;
  return {
    ...apart,
    before: { ...change, isOut: !change.isOut },
    text: `${what === 'session' ? 'Session' : 'Test'} “${title}” ${change.isOut ? 'removed' : 'taken back'}`,
    specimens: [],
    runs: [],
  };
}
