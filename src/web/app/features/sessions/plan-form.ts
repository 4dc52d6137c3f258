import { newPlanSchema, type NewPlan, type PlannedUnit } from '#contracts/session-plan';
import type { ProtocolVersion } from '#contracts/protocol-page';
import type { Rig } from '#contracts/rig';
import { servesKind } from '#contracts/protocol';
import type { SpecimenRow } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';
import type { Category } from '#contracts/common';

/** What is usually needed; ticked off before starting. */
const USUAL_NEEDS = ['Cables', 'Fresh batteries', 'Calibrator', 'Pop filter'];

/** A plan to begin with: the newest protocol of the category, today's rig. */
export function emptyPlan(
  day: string,
  protocols: readonly ProtocolVersion[],
  rigs: readonly Rig[],
  category: Category,
): NewPlan {
  const newest = newestOf(protocols, category);
  return newPlanSchema.parse({
    title: titleOf(day),
    day,
    category,
    protocol: newest?.protocol.id ?? 'desk-voice',
    protocolVersion: newest?.protocol.version ?? 1,
    rig: rigs.at(0)?.document.name ?? null,
    withControl: (rigs.at(0)?.document.controlUnit ?? null) !== null,
    units: [{ maker: '-', model: '-', label: '-', source: 'own' }],
    needs: USUAL_NEEDS.map((what) => ({ what, isThere: false })),
  });
}

const titleOf = (day: string): string => `Session of ${day}`;

/** The plan on another day: a title that nobody has written follows. */
export const onDay = <P extends Pick<NewPlan, 'title' | 'day'>>(plan: P, day: string): P => ({
  ...plan,
  day,
  title: plan.title === titleOf(plan.day) ? titleOf(day) : plan.title,
});

/** The protocol of a category that is planned with unless somebody chooses another one: the most used, at first the one that asks for most. */
export function newestOf(protocols: readonly ProtocolVersion[], category: Category): ProtocolVersion | undefined {
  const own = protocols.filter((v) => servesKind(v.protocol, category));
  const mostUsed = [...own].sort((a, b) => b.runs - a.runs || b.protocol.steps.length - a.protocol.steps.length).at(0);
  return own
    .filter((v) => v.protocol.id === mostUsed?.protocol.id)
    .sort((a, b) => b.protocol.version - a.protocol.version)
    .at(0);
}

/** The control unit that a plan can open and close with, or why there is none. */
export type PlannedControl = { readonly name: string } | { readonly reason: string };

/**
 * @param plan - its rig, day and kind of gear count
 * @param rigs - newest first
 * @param units - of the catalogue
 */
export function controlOf(
  plan: Pick<NewPlan, 'rig' | 'day' | 'category'>,
  rigs: readonly Rig[],
  units: readonly Pick<SpecimenRow, 'id' | 'maker' | 'model' | 'label' | 'category'>[],
): PlannedControl {
  if (plan.rig === null) return { reason: 'no rig is chosen, so there is no control unit' };
  const rig = rigs.find((r) => r.document.name === plan.rig && r.document.since <= plan.day)?.document;
  if (!rig) return { reason: `“${plan.rig}” was not noted yet on ${plan.day}` };
  if (rig.controlUnit === null) return { reason: `“${plan.rig}” has no control unit: choose one on the page Rigs` };
  const unit = units.find((u) => u.id === rig.controlUnit);
  if (unit?.category !== plan.category) return { reason: `the control unit of “${plan.rig}” is gear of another kind` };
  return { name: unitName(unit) };
}

/** A unit of the catalogue as one of a plan. */
export const plannedUnit = ({ maker, model, label }: Pick<SpecimenRow, 'maker' | 'model' | 'label'>): PlannedUnit => ({
  maker,
  model,
  label,
  source: 'own',
  dueBack: null,
});

/** Loans whose day to be back comes before the session, or on it. */
export const tooLate = (plan: NewPlan): PlannedUnit[] =>
  plan.units.filter((u) => u.dueBack !== null && u.dueBack <= plan.day);

/** Minutes as people say them. */
export function minutesText(minutes: number): string {
  const hours = Math.floor(minutes / 60);
  const rest = Math.round(minutes % 60);
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}
