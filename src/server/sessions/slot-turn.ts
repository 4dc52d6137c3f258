import { newPlanSchema, plannedUnitSchema, type NewPlan, type PlannedUnit } from '#contracts/session-plan';
import type { Protocol, Step } from '#contracts/protocol';
import { findSpecimen } from '../catalogue/queries/specimen';
import type { Queryable } from '../platform/db/database';
import { Failure } from '../platform/failure';
import { listProtocols } from './queries/protocol';
import { findPlan, findSlot, type SlotDbRow } from './queries/session-plan';

/** A slot with all that its takes are judged by. */
export interface Turn {
  readonly slot: SlotDbRow;
  readonly unit: PlannedUnit;
  readonly plan: NewPlan;
  readonly protocol: Protocol;
  readonly versions: readonly Protocol[];
  readonly specimenId: string | null;
}

/** @throws Failure `not-found`, `plan-refused` for a session that was cancelled */
export async function turnOf(db: Queryable, slotId: string): Promise<Turn> {
  const slot = await findSlot(db, slotId);
  const row = slot && (await findPlan(db, slot.plan_id));
  if (!slot || !row) throw new Failure('not-found', 'There is no such turn in any session.');
  const plan = newPlanSchema.parse(row.document);
  const unit = plannedUnitSchema.parse(slot.unit);
  const versions = await listProtocols(db, plan.protocol);
  const protocol = versions.find((p) => p.version === plan.protocolVersion);
  if (!protocol) throw new Failure('not-found', `The protocol "${plan.protocol}" is not there any more.`);
  if (row.status === 'cancelled') throw new Failure('plan-refused', 'This session was cancelled.');
  const specimenId = await findSpecimen(db, { ...unit, category: plan.category });
  return { slot, unit, plan, protocol, versions, specimenId };
}

/** @throws Failure `plan-refused` where the takes of a turn have become a run */
export function mustBeOpen({ slot }: Turn): void {
  if (slot.run_id !== null)
    throw new Failure(
      'plan-refused',
      'The takes of this unit have become a run; start a new session to test it again.',
    );
}

/**
 * A step of a turn that still takes takes.
 *
 * @throws Failure `plan-refused`, `not-found`
 */
export function openStep(turn: Turn, id: string): Step {
  mustBeOpen(turn);
  const step = turn.protocol.steps.find((s) => s.id === id);
  if (!step) throw new Failure('not-found', `The protocol has no step "${id}".`);
  return step;
}
