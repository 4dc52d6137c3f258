import { ALGORITHM_VERSION } from '#core/measure/registry';
import { tableCellSchema } from '#contracts/table-reading';
import { unitName } from '#contracts/unit-name';
import { tableChangeWords } from '#domain/mending/table-change-words';
import { misfits } from '#domain/step-tables/step-table';
import { listSpecimens } from '../catalogue/queries/specimen';
import { Failure } from '../platform/failure';
import type { Queryable } from '../platform/db/database';
import { fillTable, tablesOf } from '../runs/queries/table-reading';
import { findProtocol } from '../sessions/queries/protocol';
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

/** A table of a run holds other numbers; what stood before stays in the database below it. */
export async function refillTable(db: Queryable, change: ChangeOf<'run-table'>): Promise<PreparedChange> {
  const run = await findRun(db, change.run);
  const protocol = await findProtocol(db, run.protocol, run.protocol_version);
  const step = protocol?.steps.find((s) => s.id === change.step);
  if (!step?.table) throw refused(`The protocol of this run has no step “${change.step}” with a table.`);
  const [strange] = misfits(change.cells, step.table);
  if (strange) throw refused(`The table “${step.title}” ${strange.why}.`);
  const stored = (await tablesOf(db, 'run', [change.run])).find((t) => t.step === change.step);
  const before = tableCellSchema.array().parse(stored?.cells ?? []);
  const text = tableChangeWords(`Table “${step.title}” of ${run.day}`, step.table, before, change.cells);
  if (text === null) throw refused('Nothing differs from what is filled in.');
  return {
    before: { ...change, cells: before },
    text,
    specimens: [run.specimen_id],
    runs: [change.run],
    apply: (tx) => fillTable(tx, { run: change.run }, { step: change.step, cells: change.cells }),
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
