import { retestReasons } from '#core/rules/retest-reasons';
import type { RankingInputs } from '#contracts/ranking';
import type { DueUnit, UnitEvent } from '#contracts/session-plan';
import type { SpecimenRow } from '#contracts/specimen';
import { unitName } from '#contracts/unit-name';

/** What says whether a unit is due for another test. */
export interface DueFacts {
  readonly specimens: readonly SpecimenRow[];
  /** Facts and rules of every kind that has rules. */
  readonly ranked: readonly Pick<RankingInputs, 'units' | 'rubric'>[];
  /** Repairs, firmware, days to be back; newest first. */
  readonly events: readonly (Pick<UnitEvent, 'kind' | 'day'> & { readonly specimen_id: string })[];
  /** Control units of rigs. */
  readonly controls: ReadonlySet<string>;
  /** Days on which the control unit said that the rig was off. */
  readonly offDays: ReadonlySet<string>;
  readonly today: string;
}

/** Kinds of reasons, the most urgent first. */
const URGENCY = ['repair', 'firmware', 'drift', 'control-due', 'never', 'missing', 'incomparable'];

/** Units that are due for another test, each with its reasons; the most urgent first, then by name. */
export function dueUnits({ specimens, ranked, events, controls, offDays, today }: DueFacts): DueUnit[] {
  const lacking = lackingFigures(ranked);
  const found = specimens.flatMap((s): DueUnit[] => {
    const newest = (kind: UnitEvent['kind']): string | null =>
      events.find((e) => e.specimen_id === s.id && e.kind === kind)?.day ?? null;
    const isControl = controls.has(s.id);
    const reasons = retestReasons(
      {
        lastTested: s.lastTested,
        onDesk: s.onDesk,
        isControl,
        firmwareOn: newest('firmware'),
        repairedOn: newest('repair'),
        flaggedOn: s.lastTested !== null && offDays.has(s.lastTested) && !isControl ? s.lastTested : null,
        missingFigures: lacking.get(s.id)?.missing ?? [],
        incomparable: lacking.get(s.id)?.remarks ?? [],
      },
      today,
    );
    if (reasons.length === 0) return [];
    const { id, maker, model, label, category, lastTested } = s;
    const unit = { maker, model, label, source: 'own' as const, dueBack: newest('due-back') };
    return [{ id, name: unitName(s), unit, category, lastTested, reasons }];
  });
  const urgency = (d: DueUnit): number => URGENCY.indexOf(d.reasons[0].kind);
  return found.sort((a, b) => urgency(a) - urgency(b) || (a.name < b.name ? -1 : 1));
}

/** Of each ranked unit the measured criteria that it has no figure for, and why figures that are there do not count. */
function lackingFigures(
  ranked: DueFacts['ranked'],
): ReadonlyMap<string, { readonly missing: string[]; readonly remarks: string[] }> {
  const lacking = new Map<string, { missing: string[]; remarks: string[] }>();
  for (const { units, rubric } of ranked)
    for (const unit of units) {
      const own = { missing: [] as string[], remarks: [] as string[] };
      for (const criterion of rubric.criteria) {
        if (criterion.kind !== 'measured') continue;
        const figure = unit.figures[criterion.quantity];
        if (figure && figure.value !== null) continue;
        if (figure?.remark) own.remarks.push(figure.remark);
        else own.missing.push(criterion.name);
      }
      lacking.set(unit.id, own);
    }
  return lacking;
}
