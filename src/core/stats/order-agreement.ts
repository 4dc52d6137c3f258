/** How far two orders of the same things agree, pair by pair. */
export interface OrderAgreement {
  readonly pairs: number;
  /** Pairs that stand the same way round in both. */
  readonly alike: number;
  /** Probability that an order drawn at random agrees in as many pairs, or in more. Exact. */
  readonly p: number;
}

/**
 * Kendall's comparison of two orders without ties.
 *
 * @param first - things, 2 or more, each once
 * @param second - the same things
 * @throws RangeError where the two are not orders of the same things
 * @see Kendall, A new measure of rank correlation, Biometrika 30 (1938): how many orders have so many pairs reversed is
 *   counted by his recurrence; `alike` = pairs (1 + τ) / 2
 *
 * @example
 *   orderAgreement(['a', 'b', 'c'], ['b', 'a', 'c']); // => { pairs: 3, alike: 2, p: 0.5 }
 */
export function orderAgreement<T>(first: readonly T[], second: readonly T[]): OrderAgreement {
  const n = first.length;
  const places = first.map((thing) => second.indexOf(thing));
  if (n < 2 || second.length !== n || new Set(places).size !== n || places.includes(-1))
    throw new RangeError('two orders of the same things are needed, of two at least');
  let reversed = 0;
  for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) if (places[i] > places[j]) reversed++;
  // Orders by their number of reversed pairs: a k-th thing can reverse 0 … k − 1 pairs with those before it.
  let counts = [1];
  for (let k = 2; k <= n; k++) {
    const next = new Array<number>(counts.length + k - 1).fill(0);
    counts.forEach((count, at) => {
      for (let more = 0; more < k; more++) next[at + more] += count;
    });
    counts = next;
  }
  const all = counts.reduce((s, c) => s + c, 0);
  const asGood = counts.slice(0, reversed + 1).reduce((s, c) => s + c, 0);
  const pairs = (n * (n - 1)) / 2;
  return { pairs, alike: pairs - reversed, p: asGood / all };
}
