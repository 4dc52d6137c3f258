/** A step, as far as pairs need it. */
export interface PairableStep {
  readonly id: string;
  readonly pair: { readonly step: string } | null;
}

/** A step, as far as it must be known which half of a pair it is. */
export interface PairedStep {
  readonly id: string;
  readonly title: string;
  readonly accessories: readonly string[];
  readonly pair: { readonly step: string; readonly varies: string } | null;
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

/** Names by which a step without something is known. */
const WITHOUT = /without|bare|\boff\b/i;

/**
 * The half of a pair that is made with the part: the one that uses more accessories; where both use as many, the one
 * that names its other half, unless its own name says that it is the bare one.
 *
 * @param step - the one that names the other
 * @param other - its other half
 */
export function fittedStep<T extends PairedStep>(step: T, other: T): T {
  const more = step.accessories.length - other.accessories.length;
  const isFitted = more === 0 ? !WITHOUT.test(`${step.id} ${step.title}`) : more > 0;
  return isFitted ? step : other;
}
