import type { NewPlan, PlanRow } from '#contracts/session-plan';
import { unitName } from '#contracts/unit-name';

/** What a list of sessions says of one. */
export function planRow(
  id: string,
  status: PlanRow['status'],
  plan: NewPlan,
  counts: { readonly steps: number; readonly kept: number } | undefined,
): PlanRow {
  return {
    id,
    title: plan.title,
    day: plan.day,
    status,
    category: plan.category,
    protocol: plan.protocol,
    protocolVersion: plan.protocolVersion,
    units: plan.units.map(unitName),
    steps: counts?.steps ?? 0,
    kept: counts?.kept ?? 0,
    missing: plan.needs.filter((n) => !n.isThere).map((n) => n.what),
    firstDueBack: plan.units.flatMap((u) => u.dueBack ?? []).sort()[0] ?? null,
  };
}
