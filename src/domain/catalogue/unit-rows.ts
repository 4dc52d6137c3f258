import { gearKind } from '#core/gear/kinds';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { Criterion } from '#core/rules/rubric';
import type { SpecimenRow } from '#contracts/specimen';
import type { KnownUnit } from './known-unit';
import { unitClasses } from './sheet-facts';
import type { KindScatters } from './unit-facts';
import { specimenRow, type Placed } from './unit-row';

interface Made {
  readonly from: readonly unknown[];
  readonly row: SpecimenRow;
}

/** Rows of lists; a row whose parts are the same objects as before is not made again, only put in its place. */
export class UnitRows {
  private readonly made = new Map<string, Made>();

  of(
    { base, sheet }: Pick<KnownUnit, 'base' | 'sheet'>,
    unit: UnitFacts,
    placed: Placed | undefined,
    rules: readonly Criterion[] | null,
    scatters: KindScatters,
  ): SpecimenRow {
    const from = [base, gearKind(base.category), sheet, unit, rules, scatters];
    const before = this.made.get(base.id);
    const made = before?.from.every((part, i) => part === from[i])
      ? before
      : { from, row: specimenRow(base, unit, undefined, rules, scatters, unitClasses(base.category, sheet)) };
    if (made !== before) this.made.set(base.id, made);
    const { place, stratum, composite } = placed ?? { place: null, stratum: null, composite: null };
    return { ...made.row, place, stratum, composite };
  }
}
