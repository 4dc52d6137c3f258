/** What an operator enters for somebody who performed. */
export interface PerformerEntry {
  /** Items, best first. */
  readonly order: readonly string[];
  /** Words said of items. */
  readonly words: Readonly<Record<string, unknown>>;
}

/**
 * Why an order cannot be kept; null where it can.
 *
 * @param entry - what was entered
 * @param items - clips of the test
 */
export function performerRefusal(entry: PerformerEntry, items: readonly { readonly id: string }[]): string | null {
  const isKnown = (itemId: string): boolean => items.some((i) => i.id === itemId);
  const isSound =
    entry.order.every(isKnown) &&
    new Set(entry.order).size === entry.order.length &&
    Object.keys(entry.words).every(isKnown);
  return isSound ? null : 'The order names something that is not in this test, or names it twice.';
}
