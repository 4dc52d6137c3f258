import { ALGORITHM_VERSION } from '#core/measure/registry';
import { playKindOf } from '#core/rules/compare-versions';
import { comparableBetween } from '#core/rules/comparability';
import { keptAfterChoosing, undecidedTakes } from '#core/rules/step-takes';
import { checkTake } from '#core/rules/take-checks/check-take';
import { usualRate, type CheckedClip, type CheckedTake, type OtherTake } from '#core/rules/take-checks/take-check';
import { roleOf, type Protocol, type Step } from '#contracts/protocol';
import type { ImportResult } from '#contracts/run-document';
import {
  findingSchema,
  newPlanSchema,
  overruleSchema,
  plannedUnitSchema,
  slotTakeSchema,
  takeSettingsSchema,
  type CorrectSlotTake,
  type DecideTake,
  type FinishSlot,
  type NewPlan,
  type NewSlotTake,
  type PlannedUnit,
  type SlotTake,
  type TakeSettings,
} from '#contracts/session-plan';
import { tableCellSchema, type TableReading } from '#contracts/table-reading';
import { clipSummarySchema } from '#contracts/clip-summary';
import { unitKey, unitName } from '#contracts/unit-name';
import type { Database } from '../platform/db/database';
import { clipFromRow, findClip } from '../runs/queries/clip';
import { comparableTakes } from '../runs/queries/run';
import { findSpecimen } from '../catalogue/queries/specimen';
import {
  findPlan,
  findSlot,
  findSlotTake,
  finishSlot,
  insertSlotTake,
  attemptsAtStep,
  correctSlotTake,
  keepOnly,
  startSlot,
  takesOfPlan,
  takesToCompare,
  updateSlotTake,
  type SlotDbRow,
  type SlotTakeRow,
} from './queries/session-plan';
import { fillTable, tablesOf } from '../runs/queries/table-reading';
import { listProtocols } from './queries/protocol';
import { runOfSlot, type KeptTake } from '#domain/sessions/run-of-slot';
import { Failure } from '../platform/failure';
import type { AnalysisQueue } from '../runs/analysis-queue';
import { checkedClip } from './checked-clip';
import type { EventHub } from '../platform/event-hub';
import type { Rigs } from '../rigs/rigs';
import type { RunImport } from '../runs/run-import';

/** Takes that a new one is held against; more would only slow the verdict down. */
const MOST_OTHERS = 60;

/** A slot with all that its takes are judged by. */
interface Turn {
  readonly slot: SlotDbRow;
  readonly unit: PlannedUnit;
  readonly plan: NewPlan;
  readonly protocol: Protocol;
  readonly versions: readonly Protocol[];
  readonly specimenId: string | null;
}

/** Running a session: a take comes in, is looked at, is kept or made again, and at last becomes part of a run. */
export class Booth {
  constructor(
    private readonly database: Database,
    private readonly queue: AnalysisQueue,
    private readonly runImport: RunImport,
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
    const turn = await this.turn(slotId);
    const step = this.openStep(turn, take.step);
    if (!(await findClip(this.database, take.clip)))
      throw new Failure('not-found', 'There is no such clip in the archive.');
    const { summary, step_powers } = await this.queue.ready(take.clip);
    const { verdict, findings } = checkTake(
      await this.checked(turn, step, take.settings, checkedClip(summary, step_powers), null),
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
    const turn = await this.turn(row.slot_id);
    const step = this.openStep(turn, row.step);
    if (decision.state === 'kept') {
      const open = findingSchema
        .array()
        .parse(row.findings)
        .filter((f) => f.weight === 'redo' && !decision.overruled.some((o) => o.check === f.check));
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
    const turn = await this.turn(row.slot_id);
    const step = this.openStep(turn, row.step);
    const { summary, step_powers } = await this.queue.ready(row.sha256);
    const clip = checkedClip(summary, step_powers);
    const { verdict, findings } = checkTake(await this.checked(turn, step, correction.settings, clip, takeId));
    await correctSlotTake(this.database, takeId, { ...correction, verdict, findings: [...findings] }, this.now());
    this.hub.planChanged(turn.slot.plan_id);
    return this.slotTake(takeId);
  }

  /** @throws Failure `not-found`, `plan-refused`, `invalid-request` for cells that the table does not have */
  async fillTable(slotId: string, reading: TableReading): Promise<void> {
    const turn = await this.turn(slotId);
    const { table } = this.openStep(turn, reading.step);
    const strange = reading.cells.find((c) => !table?.rows.includes(c.row) || !table.columns.includes(c.column));
    if (!table || strange)
      throw new Failure(
        'invalid-request',
        `The table of this step has no cell "${strange?.row} / ${strange?.column}".`,
      );
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
    const turn = await this.turn(slotId);
    this.openStep(turn, null);
    const all = (await takesOfPlan(this.database, turn.slot.plan_id, ALGORITHM_VERSION)).filter(
      (t) => t.slot_id === slotId,
    );
    const rows = all.filter((t) => t.state === 'kept');
    const undecided = undecidedTakes(all);
    if (undecided.length > 0 && !withUndecided)
      throw new Failure(
        'takes-undecided',
        'Nobody has decided on some takes of this unit yet.',
        undecided.map((t) => ({
          file: null,
          field: t.step,
          message: `take ${t.attempt} is neither kept nor put aside`,
        })),
      );
    const tables = (await tablesOf(this.database, 'slot', [slotId])).map((t) => ({
      step: t.step,
      cells: tableCellSchema.array().parse(t.cells),
    }));
    if (rows.length === 0 && !tables.some((t) => t.cells.length > 0))
      throw new Failure('plan-refused', 'No take of this unit is kept yet, and no table filled in.');
    const withoutGain = rows.find((t) => takeSettingsSchema.parse(t.settings).gainDb === null);
    if (withoutGain)
      throw new Failure(
        'plan-refused',
        `The gain of "${titleOf(turn.protocol, withoutGain.step)}", take ${withoutGain.attempt}, is not noted: without it no figure can be compared. Correct its settings in the booth; type 0 where nothing can be turned.`,
      );
    const fullScaleDbu = turn.plan.rig === null ? null : await this.rigs.fullScaleDbu(turn.plan.rig, turn.plan.day);
    const { document, clips } = runOfSlot({
      ...turn,
      purpose: turn.slot.purpose,
      takes: rows.map(keptTakeFromRow),
      tables,
      fullScaleDbu,
    });
    const result = await this.runImport.importUploaded({ document, clips });
    await finishSlot(this.database, slotId, result.runId, this.now());
    this.hub.planChanged(turn.slot.plan_id);
    return result;
  }

  private async turn(slotId: string): Promise<Turn> {
    const slot = await findSlot(this.database, slotId);
    const row = slot && (await findPlan(this.database, slot.plan_id));
    if (!slot || !row) throw new Failure('not-found', 'There is no such turn in any session.');
    const plan = newPlanSchema.parse(row.document);
    const unit = plannedUnitSchema.parse(slot.unit);
    const versions = await listProtocols(this.database, plan.protocol);
    const protocol = versions.find((p) => p.version === plan.protocolVersion);
    if (!protocol) throw new Failure('not-found', `The protocol "${plan.protocol}" is not there any more.`);
    if (row.status === 'cancelled') throw new Failure('plan-refused', 'This session was cancelled.');
    const specimenId = await findSpecimen(this.database, { ...unit, category: plan.category });
    return { slot, unit, plan, protocol, versions, specimenId };
  }

  /** A step of a turn that still takes takes. */
  private openStep(turn: Turn, id: string): Step;
  private openStep(turn: Turn, id: null): null;
  private openStep({ slot, protocol }: Turn, id: string | null): Step | null {
    if (slot.run_id !== null)
      throw new Failure(
        'plan-refused',
        'The takes of this unit have become a run; start a new session to test it again.',
      );
    if (id === null) return null;
    const step = protocol.steps.find((s) => s.id === id);
    if (!step) throw new Failure('not-found', `The protocol has no step "${id}".`);
    return step;
  }

  private async rigRateHz({ rig, day }: NewPlan): Promise<number | null> {
    return rig === null ? null : ((await this.rigs.onDay(rig, day))?.sampleRateHz ?? null);
  }

  /** A take with all it is judged by; a take that is judged again is no norm for itself. */
  private async checked(
    turn: Turn,
    step: Step,
    settings: TakeSettings,
    clip: CheckedClip,
    itself: string | null,
  ): Promise<CheckedTake> {
    const today = await this.takesOfToday(turn, itself);
    const reference =
      step.gain?.rule === 'as-step'
        ? today.find((t) => t.isSameUnit && t.step === (step.gain as { step: string }).step)
        : undefined;
    return {
      clip,
      step,
      role: roleOf(step),
      playKind: playKindOf(step),
      gainDb: settings.gainDb,
      distanceM: settings.distanceM ?? step.distanceM,
      voice: settings.voice,
      expectedRateHz:
        turn.protocol.sampleRateHz ?? (await this.rigRateHz(turn.plan)) ?? usualRate(today.filter((t) => t.isNorm)),
      referenceGainDb: reference?.gainDb ?? null,
      others: [...today, ...(await this.earlierTakes(turn, step))],
    };
  }

  /** Takes of this session that have not become a run yet, newest first; a retaken one was retaken for a reason. */
  private async takesOfToday({ slot, unit, protocol }: Turn, itself: string | null): Promise<OtherTake[]> {
    const rows = await takesToCompare(this.database, slot.plan_id, slot.id, ALGORITHM_VERSION);
    return rows.flatMap((row) => {
      if (row.id === itself) return [];
      const other = plannedUnitSchema.parse(row.unit);
      const settings = takeSettingsSchema.parse(row.settings);
      const step = protocol.steps.find((s) => s.id === row.step);
      return [
        {
          step: row.step,
          role: step ? roleOf(step) : 'other',
          unit: unitName(other),
          isSameUnit: unitKey(other) === unitKey(unit),
          isToday: true,
          isNorm: row.state === 'kept' && overruleSchema.array().parse(row.overruled).length === 0,
          voice: settings.voice,
          gainDb: settings.gainDb,
          distanceM: settings.distanceM ?? step?.distanceM ?? null,
          clip: checkedClip(row.summary, row.step_powers),
        },
      ];
    });
  }

  private async earlierTakes(turn: Turn, step: Step): Promise<OtherTake[]> {
    const rows = await comparableTakes(this.database, {
      protocol: turn.protocol.id,
      step: step.id,
      specimenId: turn.specimenId,
      algorithmVersion: ALGORITHM_VERSION,
      most: MOST_OTHERS,
    });
    return rows.flatMap((row) => {
      const isComparable = comparableBetween(turn.versions, row.step, row.protocol_version, turn.protocol.version);
      if (!isComparable.comparable) return [];
      const then = turn.versions.find((v) => v.version === row.protocol_version)?.steps.find((s) => s.id === row.step);
      const voice = (row.settings as { voice?: unknown }).voice;
      return [
        {
          step: row.step,
          role: then ? roleOf(then) : 'other',
          unit: row.unit,
          isSameUnit: row.specimen_id === turn.specimenId,
          isToday: false,
          isNorm: row.overruled === 0,
          voice: typeof voice === 'string' ? voice : null,
          gainDb: row.gain_db,
          distanceM: row.distance_m ?? then?.distanceM ?? null,
          clip: checkedClip(row.summary, row.step_powers),
        },
      ];
    });
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

/** A take of a session as the pages read it. */
export function slotTakeFromRow(row: SlotTakeRow): SlotTake {
  const summary = row.summary === null ? null : clipSummarySchema.parse(row.summary);
  return {
    id: row.slot_take_id,
    step: row.step,
    attempt: row.attempt,
    clip: clipFromRow(row),
    settings: takeSettingsSchema.parse(row.settings),
    verdict: row.verdict,
    findings: findingSchema.array().parse(row.findings),
    overruled: overruleSchema.array().parse(row.overruled),
    state: row.state,
    note: row.note,
    changes: slotTakeSchema.shape.changes.parse(row.changes),
    peakDbfs: summary?.level.peakDbfs ?? null,
    loudnessLufs: summary?.loudness.integratedLufs ?? null,
    durationS: row.duration_s,
  };
}

/** A kept take as its run needs it. */
const keptTakeFromRow = (row: SlotTakeRow): KeptTake => ({
  step: row.step,
  attempt: row.attempt,
  container: row.container,
  sha256: row.sha256,
  settings: takeSettingsSchema.parse(row.settings),
  findings: findingSchema.array().parse(row.findings),
  overruled: overruleSchema.array().parse(row.overruled),
  note: row.note,
});

const titleOf = (protocol: Protocol, step: string): string => protocol.steps.find((s) => s.id === step)?.title ?? step;
