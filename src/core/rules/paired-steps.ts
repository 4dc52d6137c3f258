/** A step, as far as pairs need it. */
export interface PairableStep {
  readonly id: string;
  readonly pair: { readonly step: string } | null;
}

/**
 * Steps whose takes say something of the unit by itself. A take "with" something is half of a pair, and the figure of
 * that pair is a difference; of gear that is heard through another unit only, the take "without" it is that unit's.
 *
 * @param steps - of the protocol
 * @param isHeardThroughAnother - whether the unit makes no sound of its own
 * @returns ids
 */
export function stepsOfTheUnitAlone(steps: readonly PairableStep[], isHeardThroughAnother: boolean): Set<string> {
  const halves = isHeardThroughAnother ? steps.flatMap((s) => s.pair?.step ?? []) : [];
  return new Set(steps.filter((s) => s.pair === null && !halves.includes(s.id)).map((s) => s.id));
}
