/**
 * An order that grows by placing one clip after another, so that nobody has to hold more than two in mind: the next
 * one goes before the first, between two, or behind the last.
 */
export interface PlacingOrder {
  /** Best first. */
  readonly placed: readonly string[];
  readonly waiting: readonly string[];
}

/** The first clip stands by itself; there is nothing yet to place it against. */
export const beginOrder = (codes: readonly string[]): PlacingOrder => ({
  placed: codes.slice(0, 1),
  waiting: codes.slice(1),
});

/** Puts the next waiting clip at a place, 0 before the first. */
export function place({ placed, waiting }: PlacingOrder, at: number): PlacingOrder {
  const [next, ...rest] = waiting;
  return next === undefined
    ? { placed, waiting }
    : { placed: [...placed.slice(0, at), next, ...placed.slice(at)], waiting: rest };
}

/** Moves a placed clip up (−1) or down (1). */
export function move({ placed, waiting }: PlacingOrder, code: string, by: -1 | 1): PlacingOrder {
  const from = placed.indexOf(code);
  const to = from + by;
  if (from < 0 || to < 0 || to >= placed.length) return { placed, waiting };
  const order = [...placed];
  [order[from], order[to]] = [order[to], order[from]];
  return { placed: order, waiting };
}

/** What a gap is called: "better than K", "between K and M", "behind M". */
export function gapName({ placed }: PlacingOrder, at: number): string {
  if (at === 0) return `better than ${placed[0]}`;
  if (at === placed.length) return `behind ${placed[at - 1]}`;
  return `between ${placed[at - 1]} and ${placed[at]}`;
}
