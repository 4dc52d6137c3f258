/** A step, as far as pairs need it. */
export interface PairableStep {
  readonly id: string;
  readonly pair: { readonly step: string } | null;
}

/** Kinds of gear that make no sound of their own: what is recorded with them is another unit's as well. */
const HEARD_THROUGH_ANOTHER = ['booster', 'accessory'];

/**
 * Steps whose takes say something of the unit by itself. A take "with" something is half of a pair, and the figure of
 * that pair is a difference; of gear that is heard through another unit only, the take "without" it is that unit's.
 *
 * @param steps - of the protocol
 * @param category - kind of gear that is tested
 * @returns ids
 */
export function stepsOfTheUnitAlone(steps: readonly PairableStep[], category: string): Set<string> {
  const halves = HEARD_THROUGH_ANOTHER.includes(category) ? steps.flatMap((s) => s.pair?.step ?? []) : [];
  return new Set(steps.filter((s) => s.pair === null && !halves.includes(s.id)).map((s) => s.id));
}
