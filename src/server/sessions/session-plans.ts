import { z } from 'zod';
import { ALGORITHM_VERSION } from '#core/measure/registry';
import type { Protocol } from '#contracts/protocol';
import { newPlanSchema, type NewPlan, type Plan, type PlannedUnit, type PlanRow } from '#contracts/session-plan';
import { controlProblem, planProblems, type PlanProblem } from '#domain/sessions/plan-problems';
import { plannedSlots } from '#domain/sessions/planned-slots';
import { movesToToday, statusRefusal } from '#domain/sessions/session-status';
import { listSpecimens } from '../catalogue/queries/specimen';
import type { Clock } from '../platform/clock';
import type { Database, Queryable } from '../platform/db/database';
import type { EventHub } from '../platform/event-hub';
import { Failure } from '../platform/failure';
import type { Rigs } from '../rigs/rigs';
import type { PlanPages } from './plan-pages';
import { findProtocol } from './queries/protocol';
import { insertPlan, insertSlot, movePlan, replacePlan, seeCaution, setPlanDay } from './queries/session-plan';

/** Sessions planned, started, ended and called off. */
export class SessionPlans {
  constructor(
    private readonly database: Database,
    private readonly pages: PlanPages,
    private readonly rigs: Rigs,
    private readonly hub: EventHub,
    private readonly clock: Clock,
  ) {}

  /** @throws Failure `invalid-request` */
  async add(plan: NewPlan): Promise<Plan> {
    const sound = await this.soundPlan(plan);
    const id = await this.database.transaction(async (tx) => {
      const planId = await insertPlan(tx, plan);
      await addSlots(tx, planId, plan, sound);
      return planId;
    });
    this.hub.planChanged(id);
    return this.pages.view(id);
  }

  /** @throws Failure `plan-refused` once the session has started */
  async change(id: string, plan: NewPlan): Promise<Plan> {
    if ((await this.pages.row(id)).status !== 'planned')
      throw new Failure('plan-refused', 'This session has started; its plan cannot change any more.');
    const sound = await this.soundPlan(plan);
    await this.database.transaction(async (tx) => {
      await replacePlan(tx, id, plan);
      await addSlots(tx, id, plan, sound);
    });
    this.hub.planChanged(id);
    return this.pages.view(id);
  }

  /** @throws Failure `plan-refused` for a way that does not exist */
  async move(id: string, status: PlanRow['status']): Promise<Plan> {
    const { status: before, document } = await this.pages.row(id);
    const refusal = statusRefusal(before, status);
    if (refusal !== null) throw new Failure('plan-refused', refusal);
    await this.database.transaction(async (tx) => {
      if (movesToToday(before, status))
        await setPlanDay(tx, id, { ...newPlanSchema.parse(document), day: this.clock.today() });
      await movePlan(tx, id, status, this.clock.now());
    });
    this.hub.planChanged(id);
    return this.pages.view(id);
  }

  async seeCaution(id: string, caution: string): Promise<void> {
    const seen = z.array(z.string()).parse((await this.pages.row(id)).cautions_seen);
    if (!seen.includes(caution)) await seeCaution(this.database, id, [...seen, caution]);
  }

  /** The protocol of a plan that can be kept, and the control unit that opens and closes it where one is wanted. */
  private async soundPlan(plan: NewPlan): Promise<{ protocol: Protocol; control: PlannedUnit | null }> {
    const protocol = await findProtocol(this.database, plan.protocol, plan.protocolVersion);
    const problems = planProblems(plan, protocol);
    if (!protocol || problems.length > 0) throw refused(problems);
    const rig = plan.withControl ? await this.rigs.onDay(plan.rig, plan.day) : null;
    const unit = rig?.controlUnit
      ? ((await listSpecimens(this.database, ALGORITHM_VERSION, [rig.controlUnit])).at(0) ?? null)
      : null;
    const problem = controlProblem(plan, rig && { name: rig.name, control: unit });
    if (problem) throw refused([problem]);
    const control = unit && { maker: unit.maker, model: unit.model, label: unit.label };
    return { protocol, control: control && { ...control, source: 'own', dueBack: null } };
  }
}

const refused = (problems: readonly PlanProblem[]): Failure =>
  new Failure(
    'invalid-request',
    'The session cannot be planned.',
    problems.map((p) => ({ file: null, ...p })),
  );

async function addSlots(
  tx: Queryable,
  planId: string,
  plan: NewPlan,
  { protocol, control }: { readonly protocol: Protocol; readonly control: PlannedUnit | null },
): Promise<void> {
  const slots = plannedSlots(plan, protocol, control, `session ${planId}`);
  for (const [i, { purpose, unit, steps }] of slots.entries())
    await insertSlot(tx, planId, i + 1, purpose, unit, steps);
}
