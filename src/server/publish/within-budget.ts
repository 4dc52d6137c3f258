/**
 * Things that fit into so many bytes together, in their order: one that does not fit is passed over, a smaller one behind
 * it may still.
 */
export function withinBudget<T extends { readonly bytes: number }>(things: readonly T[], most: number): T[] {
  let left = most;
  return things.filter(({ bytes }) => {
    if (bytes > left) return false;
    left -= bytes;
    return true;
  });
}
