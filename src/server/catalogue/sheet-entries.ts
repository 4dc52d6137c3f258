import { sheetField, gearKind } from '#core/gear/kinds';
import { misfit } from '#core/gear/sheet/sheet-value';
import type { ProblemDetail } from '#contracts/problem';
import type { NewSheetEntries } from '#contracts/sheet';
import type { Database } from '../platform/db/database';
import type { Clock } from '../platform/clock';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import type { AnalysisQueue } from '../runs/analysis-queue';
import { runsOfSpecimen } from '../runs/queries/run';
import { unitKind } from './queries/specimen';
import { putSheetEntry } from './queries/sheet';

/** Fills in the data sheets of units. Everything is appended, with the day and the reason. */
export class SheetEntries {
  constructor(
    private readonly database: Database,
    private readonly queue: Pick<AnalysisQueue, 'measureRun'>,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  /**
   * Puts values into fields, or takes them back: all or none.
   *
   * @throws Failure `not-found`, `invalid-request` with every entry that does not fit
   */
  async put(specimenId: string, { entries, reason }: NewSheetEntries): Promise<void> {
    const kind = await unitKind(this.database, specimenId);
    if (kind === null) throw new Failure('not-found', `There is no unit with the number ${specimenId}.`);
    const problems = entries.flatMap(({ field: id, value }, i): ProblemDetail[] => {
      const field = sheetField(kind, id);
      // What a file said of a figure that this kind has no field for can be taken back all the same.
      if (value === null) return [];
      const why = field ? misfit(field, value) : `is no field of the sheet of ${gearKind(kind).name.toLowerCase()}`;
      return why === null ? [] : [{ file: null, field: `entries[${i}].${field ? 'value' : 'field'}`, message: why }];
    });
    if (problems.length > 0) throw new Failure('invalid-request', 'The sheet does not take this.', problems);
    const day = this.clock.today();
    await this.database.transaction(async (tx) => {
      for (const entry of entries) await putSheetEntry(tx, specimenId, entry, day, reason);
    });
    // A claimed sensitivity ties a microphone's figures to sound pressure.
    const movesFigures = entries.some((e) => e.field === 'sensitivity');
    if (movesFigures)
      for (const { id } of await runsOfSpecimen(this.database, specimenId)) await this.queue.measureRun(id);
    this.hub.specimenChanged(specimenId, movesFigures ? undefined : 'sheet');
  }
}
