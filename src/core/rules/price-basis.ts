import type { Rubric } from './rubric';

/** Which price a ranking is by: as the rules say, or as somebody looks at it. */
export const PRICE_BASES = ['rules', 'at-review', 'cheapest', 'to-use'] as const;
export type PriceBasis = (typeof PRICE_BASES)[number];

/**
 * Rules that count another price than they were saved with.
 *
 * @param rubric - the rules
 * @param basis - at the first test, the cheapest of now, or the unit with what it needs
 * @param use - a use of the rubric, whose parts are counted; null: parts of every use alone
 * @returns the same object where nothing differs
 */
export function withPriceBasis(rubric: Rubric, basis: PriceBasis, use: string | null): Rubric {
  const criteria = rubric.criteria.map((c) => {
    if (c.kind !== 'price') return c;
    const followsUse = use !== null && c.parts?.use === null;
    if (basis === 'rules') return followsUse ? { ...c, parts: { use } } : c;
    return basis === 'to-use' ? { ...c, parts: { use } } : { ...c, moment: basis };
  });
  return criteria.every((c, i) => c === rubric.criteria[i]) ? rubric : { ...rubric, criteria };
}
