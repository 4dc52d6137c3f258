import { z } from 'zod';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import { sessionTime } from '#core/rules/session-time';
import { rigDocumentSchema } from '#contracts/rig';
import {
  newPlanSchema,
  plannedUnitSchema,
  takeSettingsSchema,
  type NewPlan,
  type Plan,
  type PlanRow,
  type Slot,
} from '#contracts/session-plan';
import { tableCellSchema } from '#contracts/table-reading';
import { unitKey } from '#contracts/unit-name';
import { planRow } from '#domain/sessions/plan-row';
import { findSpecimens } from '../catalogue/queries/specimen';
import type { Database } from '../platform/db/database';
import { Failure } from '../platform/failure';
import type { Rigs } from '../rigs/rigs';
import { lastSettings } from '../runs/queries/run';
import { tablesOf } from '../runs/queries/table-reading';
import { findProtocol } from './queries/protocol';
import {
  findPlan,
  keptByPlan,
  listPlans,
  pastPaces,
  slotsOfPlan,
  takesOfPlan,
  type PlanDbRow,
} from './queries/session-plan';
import { slotTakeFromRow } from './slot-take-row';

const stepIdsSchema = z.array(z.string());

/** Sessions as they are read: the list, and one with its turns, takes and the rig of its day. */
export class PlanPages {
  constructor(
    private readonly database: Database,
    private readonly rigs: Rigs,
  ) {}

  async list(): Promise<PlanRow[]> {
    const kept = await keptByPlan(this.database);
    return (await listPlans(this.database)).map((row) =>
      planRow(
        row.id,
        row.status,
        newPlanSchema.parse(row.document),
        kept.find((k) => k.plan_id === row.id),
      ),
    );
  }

  /** @throws Failure `not-found` */
  async view(id: string): Promise<Plan> {
    const row = await this.row(id);
    const plan = newPlanSchema.parse(row.document);
    const protocol = await findProtocol(this.database, plan.protocol, plan.protocolVersion);
    if (!protocol)
      throw new Failure('not-found', `Version ${plan.protocolVersion} of "${plan.protocol}" is not in this archive.`);
    const slots = await this.slots(id, plan);
    const rig = await this.rigs.onDay(plan.rig, plan.day);
    const steps = slots.reduce((s, slot) => s + slot.steps.length, 0);
    const estimate = sessionTime(steps, slots.length, await pastPaces(this.database));
    const counts = (await keptByPlan(this.database)).find((k) => k.plan_id === id);
    return {
      row: planRow(id, row.status, plan, counts),
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

  /** @throws Failure `not-found` */
  async row(id: string): Promise<PlanDbRow> {
    const row = await findPlan(this.database, id);
    if (!row) throw new Failure('not-found', `There is no session with the number ${id}.`);
    return row;
  }

  private async slots(planId: string, plan: NewPlan): Promise<Slot[]> {
    const rows = await slotsOfPlan(this.database, planId);
    const takes = await takesOfPlan(this.database, planId, ALGORITHM_VERSION);
    const ids = rows.map((r) => r.id);
    const tables = await tablesOf(this.database, 'slot', ids);
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
}
