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
  /** As it was handed out last. */
  readonly row: SpecimenRow;
}

const NOWHERE = { place: null, stratum: null, composite: null };

/**
 * Rows of lists. A row whose parts are the same objects as before is not made again, only put in its place; one that
 * stands where it stood is the same object.
 */
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
    const isSame = before?.from.every((part, i) => part === from[i]) ?? false;
    const known = isSame ? before?.row : undefined;
    const { place, stratum, composite } = placed ?? NOWHERE;
    if (known && known.place === place && known.stratum === stratum && known.composite === composite) return known;
    const made = known ?? specimenRow(base, unit, undefined, rules, scatters, unitClasses(base.category, sheet));
    const row = { ...made, place, stratum, composite };
    this.made.set(base.id, { from, row });
    return row;
  }
}
