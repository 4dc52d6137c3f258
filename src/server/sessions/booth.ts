import { ALGORITHM_VERSION } from '#core/measure/registry';
import { keptAfterChoosing } from '#core/rules/step-takes';
import { checkTake } from '#core/rules/take-checks/check-take';
import type { Protocol } from '#contracts/protocol';
import type { ImportResult } from '#contracts/run-document';
import {
  findingSchema,
  takeSettingsSchema,
  type CorrectSlotTake,
  type DecideTake,
  type FinishSlot,
  type NewSlotTake,
  type SlotTake,
} from '#contracts/session-plan';
import { tableCellSchema, type TableReading } from '#contracts/table-reading';
import type { Database } from '../platform/db/database';
import { findClip } from '../runs/queries/clip';
import {
  findSlotTake,
  finishSlot,
  insertSlotTake,
  attemptsAtStep,
  correctSlotTake,
  keepOnly,
  startSlot,
  takesOfPlan,
  updateSlotTake,
  type SlotTakeRow,
} from './queries/session-plan';
import { fillTable, tablesOf } from '../runs/queries/table-reading';
import { misfits } from '#domain/step-tables/step-table';
import { turnRefusal, unanswered } from '#domain/sessions/finished-turn';
import { runOfSlot } from '#domain/sessions/run-of-slot';
import { Failure } from '../platform/failure';
import type { AnalysisQueue } from '../runs/analysis-queue';
import { checkedClip } from './checked-clip';
import { keptTakeFromRow, slotTakeFromRow } from './slot-take-row';
import { mustBeOpen, openStep, turnOf } from './slot-turn';
import type { TakeCompany } from './take-company';
import type { EventHub } from '../platform/event-hub';
import type { Rigs } from '../rigs/rigs';
import type { RunImport } from '../runs/run-import';

/** Running a session: a take comes in, is looked at, is kept or made again, and at last becomes part of a run. */
export class Booth {
  constructor(
    private readonly database: Database,
    private readonly queue: AnalysisQueue,
    private readonly runImport: RunImport,
    private readonly company: TakeCompany,
    private readonly rigs: Rigs,
    private readonly hub: EventHub,
    private readonly now: () => Date,
  ) {}

  /**
   * Takes a clip of the archive as an attempt at a step, and judges it.
   *
   * @throws Failure `not-found`, `plan-refused` for a slot that is finished, `clip-refused`
   */
  async addTake(slotId: string, take: NewSlotTake): Promise<SlotTake> {
    const turn = await turnOf(this.database, slotId);
    const step = openStep(turn, take.step);
    if (!(await findClip(this.database, take.clip)))
      throw new Failure('not-found', 'There is no such clip in the archive.');
    const { summary, step_powers } = await this.queue.ready(take.clip);
    const { verdict, findings } = checkTake(
      await this.company.of(turn, step, take.settings, checkedClip(summary, step_powers), null),
    );
    await startSlot(this.database, slotId, this.now());
    const id = await this.database.transaction((tx) =>
      insertSlotTake(tx, {
        slotId,
        step: take.step,
        sha256: take.clip,
        settings: take.settings,
        verdict,
        findings: [...findings],
        note: take.note,
      }),
    );
    this.hub.planChanged(turn.slot.plan_id);
    return this.slotTake(id);
  }

  /**
   * Keeps a take, or marks it as retaken; changes its note, and which checks are overruled. What was noted of its
   * settings stays: see {@link correct}.
   *
   * @throws Failure `take-refused` for keeping a take that is of no use without a reason for each finding
   */
  async decide(takeId: string, decision: DecideTake): Promise<SlotTake> {
    const row = await this.takeRow(takeId);
    const turn = await turnOf(this.database, row.slot_id);
    const step = openStep(turn, row.step);
    if (decision.state === 'kept') {
      const open = unanswered(findingSchema.array().parse(row.findings), decision.overruled);
      if (open.length > 0) {
        throw new Failure(
          'take-refused',
          'This take has findings that nobody has overruled.',
          open.map((f) => ({ file: null, field: f.check, message: f.what })),
        );
      }
    }
    await this.database.transaction(async (tx) => {
      await updateSlotTake(tx, takeId, decision);
      if (decision.state === 'kept') {
        const attempts = await attemptsAtStep(tx, row.slot_id, row.step);
        await keepOnly(tx, row.slot_id, row.step, keptAfterChoosing(attempts, takeId, step.repeats));
      }
    });
    this.hub.planChanged(turn.slot.plan_id);
    return this.slotTake(takeId);
  }

  /**
   * Corrects the settings that were noted with a take. What stood before is kept beside it, and the take is judged anew,
   * since a check may hang on its gain or distance.
   *
   * @throws Failure `not-found`, `plan-refused` once the takes are a run
   */
  async correct(takeId: string, correction: CorrectSlotTake): Promise<SlotTake> {
    const row = await this.takeRow(takeId);
    const turn = await turnOf(this.database, row.slot_id);
    const step = openStep(turn, row.step);
    const { summary, step_powers } = await this.queue.ready(row.sha256);
    const clip = checkedClip(summary, step_powers);
    const { verdict, findings } = checkTake(await this.company.of(turn, step, correction.settings, clip, takeId));
    await correctSlotTake(this.database, takeId, { ...correction, verdict, findings: [...findings] }, this.now());
    this.hub.planChanged(turn.slot.plan_id);
    return this.slotTake(takeId);
  }

  /** @throws Failure `not-found`, `plan-refused`, `invalid-request` for cells that the table does not have */
  async fillTable(slotId: string, reading: TableReading): Promise<void> {
    const turn = await turnOf(this.database, slotId);
    const { table } = openStep(turn, reading.step);
    if (!table) throw new Failure('invalid-request', 'This step has no table: it is recorded.');
    const [strange] = misfits(reading.cells, table);
    if (strange) throw new Failure('invalid-request', `The table of this step ${strange.why}.`);
    await startSlot(this.database, slotId, this.now());
    await fillTable(this.database, { slot: slotId }, reading);
    this.hub.planChanged(turn.slot.plan_id);
  }

  /**
   * Makes the kept takes of a slot a run of its unit. Takes that nobody has decided on stay beside the run, once that
   * was asked for.
   *
   * @throws Failure `plan-refused` where nothing is kept or filled in, or a gain is not noted, `takes-undecided`
   */
  async finish(slotId: string, { withUndecided }: FinishSlot): Promise<ImportResult> {
    const turn = await turnOf(this.database, slotId);
    mustBeOpen(turn);
    const all = (await takesOfPlan(this.database, turn.slot.plan_id, ALGORITHM_VERSION)).filter(
      (t) => t.slot_id === slotId,
    );
    const tables = (await tablesOf(this.database, 'slot', [slotId])).map((t) => ({
      step: t.step,
      cells: tableCellSchema.array().parse(t.cells),
    }));
    const noted = all.map((t) => {
      const { gainDb, dial } = takeSettingsSchema.parse(t.settings);
      return { ...t, gainDb, dial };
    });
    const refusal = turnRefusal(noted, tables, withUndecided, (step) => titleOf(turn.protocol, step));
    if (refusal) throw new Failure(refusal.code, refusal.message, refusal.details);
    const fullScaleDbu = turn.plan.rig === null ? null : await this.rigs.fullScaleDbu(turn.plan.rig, turn.plan.day);
    const { document, clips } = runOfSlot({
      ...turn,
      purpose: turn.slot.purpose,
      takes: all.filter((t) => t.state === 'kept').map(keptTakeFromRow),
      tables,
      fullScaleDbu,
    });
    const result = await this.runImport.importUploaded({ document, clips });
    await finishSlot(this.database, slotId, result.runId, this.now());
    this.hub.planChanged(turn.slot.plan_id);
    return result;
  }

  private async takeRow(takeId: string): Promise<SlotTakeRow> {
    const row = await findSlotTake(this.database, takeId, ALGORITHM_VERSION);
    if (!row) throw new Failure('not-found', 'There is no such take.');
    return row;
  }

  private async slotTake(takeId: string): Promise<SlotTake> {
    return slotTakeFromRow(await this.takeRow(takeId));
  }
}

const titleOf = (protocol: Protocol, step: string): string => protocol.steps.find((s) => s.id === step)?.title ?? step;
