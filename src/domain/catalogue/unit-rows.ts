import type { GearKind } from '#core/gear/gear-kind';
import { gearKind } from '#core/gear/kinds';
import type { UnitFacts } from '#core/rules/criterion-points';
import type { Criterion } from '#core/rules/rubric';
import type { SpecimenRow } from '#contracts/specimen';
import type { KnownUnit } from './known-unit';
import { unitClasses } from './sheet-facts';
import type { SpecimenBase } from './specimen-base';
import type { KindScatters } from './unit-facts';
import { specimenRow, type Placed } from './unit-row';

interface Made {
  readonly base: SpecimenBase;
  readonly kind: GearKind;
  readonly sheet: KnownUnit['sheet'];
  readonly unit: UnitFacts;
  readonly rules: readonly Criterion[] | null;
  readonly scatters: KindScatters;
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
    const kind = gearKind(base.category);
    const before = this.made.get(base.id);
    const isSame =
      before?.base === base &&
      before.kind === kind &&
      before.sheet === sheet &&
      before.unit === unit &&
      before.rules === rules &&
      before.scatters === scatters;
    const known = isSame ? before.row : undefined;
    const { place, stratum, composite } = placed ?? NOWHERE;
    if (known && known.place === place && known.stratum === stratum && known.composite === composite) return known;
    const made = known ?? specimenRow(base, unit, undefined, rules, scatters, unitClasses(base.category, sheet));
    const row = { ...made, place, stratum, composite };
    this.made.set(base.id, { base, kind, sheet, unit, rules, scatters, row });
    return row;
  }
}
