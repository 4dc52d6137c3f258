import { ALGORITHM_VERSION } from '#core/measure/registry';
import { sessionTime } from '#core/rules/session-time';
import { servedKinds, servesKind, type Protocol } from '#contracts/protocol';
import { rigDocumentSchema } from '#contracts/rig';
import {
  newPlanSchema,
  plannedUnitSchema,
  takeSettingsSchema,
  type DueUnit,
  type HeldSession,
  type NewPlan,
  type Plan,
  type PlannedUnit,
  type PlanRow,
  type Slot,
} from '#contracts/session-plan';
import { tableCellSchema } from '#contracts/table-reading';
import type { ProblemDetail } from '#contracts/problem';
import { unitKey, unitName } from '#contracts/unit-name';
import { z } from 'zod';
import type { Database, Queryable } from '../platform/db/database';
import { findProtocol } from './queries/protocol';
import { lastSettings, runsOfDay } from '../runs/queries/run';
import { findSpecimens, listSpecimens, noteCustody } from '../catalogue/queries/specimen';
import {
  findPlan,
  insertPlan,
  insertSlot,
  keptByPlan,
  listPlans,
  movePlan,
  pastPaces,
  replacePlan,
  seeCaution,
  setPlanDay,
  slotsOfPlan,
  takesOfPlan,
  type PlanDbRow,
} from './queries/session-plan';
import { tablesOf } from '../runs/queries/table-reading';
import { listUnitEvents, noteUnitEvent } from '../catalogue/queries/unit-event';
import { dueUnits } from '#domain/sessions/due-units';
import { plannedSlots } from '#domain/sessions/planned-slots';
import { Failure } from '../platform/failure';
import { slotTakeFromRow } from './slot-take-row';
import type { Catalogue } from '../catalogue/catalogue';
import type { EventHub } from '../platform/event-hub';
import type { Rigs } from '../rigs/rigs';
import type { Clock } from '../platform/clock';

const stepIdsSchema = z.array(z.string());

/** Sessions planned ahead, running and done. */
export class SessionPlans {
  constructor(
    private readonly database: Database,
    private readonly rigs: Rigs,
    private readonly catalogue: Catalogue,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  async list(): Promise<PlanRow[]> {
    const kept = await keptByPlan(this.database);
    return (await listPlans(this.database)).map((row) => planRow(row, kept));
  }

  /** @throws Failure `invalid-request` */
  async add(plan: NewPlan): Promise<Plan> {
    const protocol = await this.protocolOf(plan);
    const control = await this.controlOf(plan);
    const id = await this.database.transaction(async (tx) => {
      const planId = await insertPlan(tx, plan);
      await addSlots(tx, planId, plan, protocol, control);
      return planId;
    });
    this.hub.planChanged(id);
    return this.view(id);
  }

  /** @throws Failure `plan-refused` once the session has started */
  async change(id: string, plan: NewPlan): Promise<Plan> {
    const row = await this.row(id);
    if (row.status !== 'planned')
      throw new Failure('plan-refused', 'This session has started; its plan cannot change any more.');
    const protocol = await this.protocolOf(plan);
    const control = await this.controlOf(plan);
    await this.database.transaction(async (tx) => {
      await replacePlan(tx, id, plan);
      await addSlots(tx, id, plan, protocol, control);
    });
    this.hub.planChanged(id);
    return this.view(id);
  }

  /** @throws Failure `plan-refused` for a way that does not exist */
  async move(id: string, status: PlanDbRow['status']): Promise<Plan> {
    const { status: before, document } = await this.row(id);
    const allowed: Readonly<Record<PlanDbRow['status'], readonly PlanDbRow['status'][]>> = {
      planned: ['running', 'cancelled'],
      running: ['done', 'cancelled'],
      done: ['running'],
      cancelled: ['planned'],
    };
    if (!allowed[before].includes(status))
      throw new Failure('plan-refused', `A session that is ${before} cannot become ${status}.`);
    await this.database.transaction(async (tx) => {
      // Takes belong to the day on which they are made, whatever was planned.
      if (before === 'planned' && status === 'running')
        await setPlanDay(tx, id, { ...newPlanSchema.parse(document), day: this.clock.today() });
      await movePlan(tx, id, status, this.clock.now());
    });
    this.hub.planChanged(id);
    return this.view(id);
  }

  async seeCaution(id: string, caution: string): Promise<void> {
    const seen = stepIdsSchema.parse((await this.row(id)).cautions_seen);
    if (!seen.includes(caution)) await seeCaution(this.database, id, [...seen, caution]);
  }

  /** @throws Failure `not-found` */
  async view(id: string): Promise<Plan> {
    const row = await this.row(id);
    const plan = newPlanSchema.parse(row.document);
    const protocol = await this.protocolOf(plan);
    const slots = await this.slots(id, plan);
    const rig = await this.rigs.onDay(plan.rig, plan.day);
    const steps = slots.reduce((s, slot) => s + slot.steps.length, 0);
    const estimate = sessionTime(steps, slots.length, await pastPaces(this.database));
    return {
      row: planRow(row, await keptByPlan(this.database)),
      plan,
      protocol,
      rig: rig && rigDocumentSchema.strip().parse(rig),
      slots,
      estimate,
      startedAt: row.started_at?.toISOString() ?? null,
      finishedAt: row.finished_at?.toISOString() ?? null,
      cautionsSeen: stepIdsSchema.parse(row.cautions_seen),
      health: await this.rigs.health(plan.day, plan.rig),
    };
  }

  async held(day: string): Promise<HeldSession> {
    const runs = await runsOfDay(this.database, day);
    if (runs.length === 0) throw new Failure('not-found', `Nothing was tested on ${day}.`);
    const rig = await this.rigs.rigOfDay(day);
    return {
      day,
      rig,
      runs: runs.map((r) => ({
        id: r.id,
        purpose: r.purpose,
        specimenId: r.specimen_id,
        name: r.name,
        protocol: r.protocol,
        protocolVersion: r.protocol_version,
        takes: r.takes,
        overruled: r.overruled,
      })),
      health: await this.rigs.health(day, rig),
      plans: (await this.list()).filter((p) => p.day === day).map(({ id, title }) => ({ id, title })),
    };
  }

  async noteEvent(specimenId: string, event: Parameters<typeof noteUnitEvent>[2]): Promise<void> {
    await this.catalogue.specimen(specimenId);
    await noteUnitEvent(this.database, specimenId, event);
    if (event.kind === 'repair') await noteCustody(this.database, specimenId, true, event.day);
    this.hub.specimenChanged(specimenId);
  }

  /** Units that should be tested again, those with the weightiest reasons first. */
  async due(): Promise<DueUnit[]> {
    return dueUnits({
      specimens: await this.catalogue.specimens(),
      ranked: await this.catalogue.allRankingInputs(),
      events: await listUnitEvents(this.database),
      controls: await this.rigs.controlUnits(),
      offDays: await this.rigs.offDays(),
      today: this.clock.today(),
    });
  }

  private async slots(planId: string, plan: NewPlan): Promise<Slot[]> {
    const rows = await slotsOfPlan(this.database, planId);
    const takes = await takesOfPlan(this.database, planId, ALGORITHM_VERSION);
    const tables = await tablesOf(
      this.database,
      'slot',
      rows.map((r) => r.id),
    );
    const units = rows.map((r) => plannedUnitSchema.parse(r.unit));
    const specimens = await findSpecimens(this.database, plan.category, units);
    const settings = await this.lastSettings([...specimens.values()]);
    return rows.map((row, i): Slot => {
      const unit = units[i];
      const specimenId = specimens.get(unitKey(unit)) ?? null;
      return {
        id: row.id,
        ordinal: row.ordinal,
        purpose: row.purpose,
        unit,
        specimenId,
        runId: row.run_id,
        steps: stepIdsSchema.parse(row.steps),
        takes: takes.filter((t) => t.slot_id === row.id).map(slotTakeFromRow),
        tables: tables
          .filter((t) => t.owner === row.id)
          .map((t) => ({ step: t.step, cells: tableCellSchema.array().parse(t.cells) })),
        lastSettings: settings.get(specimenId ?? '') ?? [],
      };
    });
  }

  /** By unit. */
  private async lastSettings(specimenIds: readonly string[]): Promise<ReadonlyMap<string, Slot['lastSettings']>> {
    const settings = new Map<string, Slot['lastSettings']>();
    for (const row of await lastSettings(this.database, specimenIds)) {
      const further = takeSettingsSchema.partial().strip().safeParse(row.settings);
      const last: Slot['lastSettings'][number] = {
        step: row.step,
        day: row.day,
        settings: {
          ...(further.success ? further.data : {}),
          gainDb: row.gain_db,
          distanceM: row.distance_m,
          angleDeg: row.angle_deg,
        },
      };
      settings.set(row.specimen_id, [...(settings.get(row.specimen_id) ?? []), last]);
    }
    return settings;
  }

  private async row(id: string): Promise<PlanDbRow> {
    const row = await findPlan(this.database, id);
    if (!row) throw new Failure('not-found', `There is no session with the number ${id}.`);
    return row;
  }

  private async protocolOf(plan: NewPlan): Promise<Protocol> {
    const protocol = await findProtocol(this.database, plan.protocol, plan.protocolVersion);
    const say = (field: string, message: string): ProblemDetail => ({ file: null, field, message });
    if (!protocol)
      throw new Failure('invalid-request', 'The session cannot be planned.', [
        say('protocol', `there is no version ${plan.protocolVersion} of "${plan.protocol}"`),
      ]);
    const problems: ProblemDetail[] = [];
    if (!servesKind(protocol, plan.category))
      problems.push(
        say(
          'category',
          `"${protocol.name}" is a protocol for ${servedKinds(protocol).join(' and ')}, not for ${plan.category}`,
        ),
      );
    const names = plan.units.map(unitKey);
    names.forEach((n, i) => {
      if (names.indexOf(n) < i) problems.push(say(`units[${i}]`, 'this unit is there twice'));
    });
    const strange = plan.controlSteps.filter((s) => !protocol.steps.some((x) => x.id === s));
    if (strange.length > 0) problems.push(say('controlSteps', `the protocol has no step ${strange.join(', ')}`));
    if (problems.length > 0) throw new Failure('invalid-request', 'The session cannot be planned.', problems);
    return protocol;
  }

  /**
   * The control unit that opens and closes the session; null where none is wanted.
   *
   * @throws Failure `invalid-request` where one is wanted and there is none
   */
  private async controlOf(plan: NewPlan): Promise<PlannedUnit | null> {
    if (!plan.withControl) return null;
    const refuse = (message: string): Failure =>
      new Failure('invalid-request', 'The session cannot be planned.', [{ file: null, field: 'withControl', message }]);
    const rig = await this.rigs.onDay(plan.rig, plan.day);
    if (!rig?.controlUnit)
      throw refuse(
        rig
          ? `the rig "${rig.name}" has no control unit; choose one on the page Rigs, or plan without`
          : `no rig is noted for ${plan.day}, so there is no control unit; note one on the page Rigs, or plan without`,
      );
    const [unit] = await listSpecimens(this.database, ALGORITHM_VERSION, [rig.controlUnit]);
    if (unit?.category !== plan.category)
      throw refuse(`the control unit of "${rig.name}" is gear of another kind; plan without, or on another rig`);
    return { maker: unit.maker, model: unit.model, label: unit.label, source: 'own', dueBack: null };
  }
}

async function addSlots(
  tx: Queryable,
  planId: string,
  plan: NewPlan,
  protocol: Protocol,
  control: PlannedUnit | null,
): Promise<void> {
  const slots = plannedSlots(plan, protocol, control, `session ${planId}`);
  for (const [i, { purpose, unit, steps }] of slots.entries())
    await insertSlot(tx, planId, i + 1, purpose, unit, steps);
}

function planRow(row: PlanDbRow, kept: readonly { plan_id: string; kept: number; steps: number }[]): PlanRow {
  const plan = newPlanSchema.parse(row.document);
  const counts = kept.find((k) => k.plan_id === row.id);
  const due = plan.units.flatMap((u) => u.dueBack ?? []).sort();
  return {
    id: row.id,
    title: plan.title,
    day: plan.day,
    status: row.status,
    category: plan.category,
    protocol: plan.protocol,
    protocolVersion: plan.protocolVersion,
    units: plan.units.map(unitName),
    steps: counts?.steps ?? 0,
    kept: counts?.kept ?? 0,
    missing: plan.needs.filter((n) => !n.isThere).map((n) => n.what),
    firstDueBack: due.at(0) ?? null,
  };
}
