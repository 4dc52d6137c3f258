/** A strip of all units by one figure. */
export interface StripModel {
  /** Positions of the others and of this one, 0…100 %, lower values to the left. */
  readonly others: readonly number[];
  readonly self: number;
  readonly low: number;
  readonly high: number;
  /** "3 / 27", counted from the better end where there is one. */
  readonly place: string;
  readonly words: string;
}

/**
 * @param value - of this unit
 * @param others - of all others, at least one
 * @param better - which way is better; null counts from the highest
 */
export function stripModel(value: number, others: readonly number[], better: 'higher' | 'lower' | null): StripModel {
  const low = Math.min(value, ...others);
  const high = Math.max(value, ...others);
  const at = (v: number): number => (high === low ? 50 : (100 * (v - low)) / (high - low));
  const ahead = others.filter((o) => (better === 'lower' ? o < value : o > value)).length;
  const count = others.length + 1;
  const way = better === null ? 'highest' : better === 'lower' ? 'best (lowest)' : 'best (highest)';
  return {
    others: others.map(at),
    self: at(value),
    low,
    high,
    place: `${ahead + 1} / ${count}`,
    words: `${ahead + 1} of ${count}, counted from the ${way}`,
  };
}
