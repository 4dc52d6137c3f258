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
