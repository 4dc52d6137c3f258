import type { Family } from '#contracts/variant';
import type { KnownUnit } from './known-unit';
import type { SpecimenBase } from './specimen-base';

/** What lists say of a unit that is there in several configurations; null for any other. */
export function familyOf({
  id,
  variant_of,
  configuration,
  varies,
  counts,
  variants,
}: Pick<SpecimenBase, 'id' | 'variant_of' | 'configuration' | 'varies' | 'counts' | 'variants'>): Family | null {
  if (variant_of === null && variants === 0) return null;
  return { main: variant_of ?? id, configuration, varies, counts };
}

/**
 * Facts of configurations: where they were not noted with the configuration itself, what the unit costs and needs, what
 * its sheet says and what points it was given are those of the unit that it is a configuration of; figures, tables and
 * answers are always its own. It goes on from the last time: what follows from units that are the same objects as before
 * is the same object.
 */
export class FamilyFacts {
  private made = new Map<string, { readonly from: readonly [KnownUnit, KnownUnit]; readonly unit: KnownUnit }>();

  /** @param units - all of them, in any order */
  of(units: readonly KnownUnit[]): readonly KnownUnit[] {
    // Most catalogues hold few configurations, and many none.
    if (units.every((u) => u.base.variant_of === null)) return units;
    const byId = new Map(units.map((u) => [u.base.id, u]));
    const made: typeof this.made = new Map();
    const all = units.map((own) => {
      const main = own.base.variant_of === null ? undefined : byId.get(own.base.variant_of);
      if (!main) return own;
      const before = this.made.get(own.base.id);
      const isSame = before?.from[0] === own && before.from[1] === main;
      const one = isSame ? before : { from: [own, main] as const, unit: ofVariant(own, main) };
      made.set(own.base.id, one);
      return one.unit;
    });
    this.made = made;
    return all;
  }
}

function ofVariant(own: KnownUnit, main: KnownUnit): KnownUnit {
  const ownFields = new Set(own.sheet.map((s) => s.field));
  const ownCriteria = new Set(own.points.map((p) => p.criterion));
  return {
    ...own,
    // It is one piece of gear: where the one is, the other is.
    base: own.base.on_desk === main.base.on_desk ? own.base : { ...own.base, on_desk: main.base.on_desk },
    prices: own.prices.length > 0 ? own.prices : main.prices,
    needs: own.needs.length > 0 ? own.needs : main.needs,
    sheet: [...own.sheet, ...main.sheet.filter((s) => !ownFields.has(s.field))],
    points: [...own.points, ...main.points.filter((p) => !ownCriteria.has(p.criterion))],
  };
}
