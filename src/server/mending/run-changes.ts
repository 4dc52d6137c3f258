import { ALGORITHM_VERSION } from '#core/measure/registry';
import { unitName } from '#contracts/unit-name';
import { listSpecimens } from '../catalogue/queries/specimen';
import { Failure } from '../platform/failure';
import type { Queryable } from '../platform/db/database';
import { left, refused, type ChangeOf, type PreparedChange } from './prepared-change';
import { correctableRun, moveRun, namesOf, type CorrectableRun } from './queries/correction';

async function findRun(db: Queryable, id: string): Promise<CorrectableRun> {
  const run = await correctableRun(db, id);
  if (!run) throw new Failure('not-found', 'There is no such run.');
  return run;
}

/** A run counts, or does not. */
export async function leaveRun(db: Queryable, change: ChangeOf<'run-left-out'>): Promise<PreparedChange> {
  const run = await findRun(db, change.run);
  return {
    ...(await left(db, 'run', change.run, change.isOut)),
    before: { ...change, isOut: !change.isOut },
    text: `Run of ${run.day} ${change.isOut ? 'left out' : 'taken back'}`,
    specimens: [run.specimen_id],
    runs: change.isOut ? [] : [change.run],
  };
}

/** A run is another unit’s. */
export async function moveToUnit(db: Queryable, change: ChangeOf<'run-moved'>): Promise<PreparedChange> {
  const run = await findRun(db, change.run);
  const [from, to] = [await namesOf(db, run.specimen_id), await namesOf(db, change.unit)];
  const [target] = await listSpecimens(db, ALGORITHM_VERSION, [change.unit]);
  if (!from || !to) throw new Failure('not-found', `There is no unit with the number ${change.unit}.`);
  if (run.specimen_id === change.unit) throw refused('The run is that unit’s already.');
  if (target.category !== run.category)
    throw refused(`${unitName(to)} is gear of another kind; a run of its protocol cannot be its.`);
  return {
    before: { ...change, unit: run.specimen_id },
    text: `Run of ${run.day} moved from ${unitName(from)} to ${unitName(to)}`,
    specimens: [run.specimen_id, change.unit],
    runs: [change.run],
    apply: (tx) => moveRun(tx, change.run, change.unit),
  };
}
