import { unitName } from '#contracts/unit-name';

interface Member {
  readonly id: string;
  readonly maker: string;
  readonly model: string;
  readonly label: string;
  readonly category: string;
  readonly variant_of: string | null;
}

/** The label of a configuration: that of the unit, and behind it what is different. */
export const variantLabel = (label: string, configuration: string): string => `${label}, ${configuration}`;

/**
 * Why a unit cannot be a configuration of another one; null where it can.
 *
 * @param asked - what is asked for
 * @param asked.unit - the one that would be a configuration; null where it is added for that
 * @param asked.of - the one that it would be a configuration of
 * @param asked.variants - how many configurations the first has itself
 */
export function variantRefusal(asked: {
  readonly unit: Member | null;
  readonly of: Member;
  readonly variants: number;
}): string | null {
  const { unit, of, variants } = asked;
  if (of.variant_of !== null)
    return `${unitName(of)} is a configuration itself; note it with the unit that it is a configuration of`;
  if (unit === null) return null;
  if (unit.id === of.id) return 'a unit is no configuration of itself';
  if (unit.category !== of.category) return `${unitName(of)} is gear of another kind`;
  if (variants > 0) return `${unitName(unit)} has configurations of its own; let these stand by themselves first`;
  return null;
}

/** How a unit is called. */
export interface UnitNames {
  readonly maker: string;
  readonly model: string;
  readonly label: string;
}

/**
 * How a configuration is called after its unit was given another name: it is of the same maker and model, and its label
 * goes with that of the unit where it was made from that. A name of its own stays.
 *
 * @param variant - as it is called now
 * @param before - the unit's old name
 * @param after - the unit's new name
 * @returns null where its name stays
 */
export function nameAfterUnit(
  variant: UnitNames & { readonly configuration: string },
  before: UnitNames,
  after: UnitNames,
): UnitNames | null {
  if (variant.maker !== before.maker || variant.model !== before.model) return null;
  const follows = variant.label === variantLabel(before.label, variant.configuration);
  const label = follows ? variantLabel(after.label, variant.configuration) : variant.label;
  const { maker, model } = after;
  return maker === variant.maker && model === variant.model && label === variant.label ? null : { maker, model, label };
}
