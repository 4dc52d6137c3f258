import type { RankedUnit } from './rank';

/** Where a unit stands before and after a change of the rules. */
export interface RankMove {
  readonly id: string;
  /** Null: it is not ranked. */
  readonly before: number | null;
  readonly after: number | null;
  /** Places that it rises; negative where it falls, 0 where it stays, comes or goes. */
  readonly rises: number;
  /** Whether either order calls the place in the other one unlikely: it lies outside the 90 % interval of both. */
  readonly isBeyondDoubt: boolean;
}

type Place = Pick<RankedUnit, 'id' | 'place' | 'rank90'>;

const isOutside = (place: number, [low, high]: readonly [number, number]): boolean => place < low || place > high;

/**
 * Who moves where the rules change, in the order after it; units that are gone stand last.
 *
 * @param before - the ranking by the rules as they stand
 * @param after - the same units by the rules as they would be
 */
export function rankMoves(before: readonly Place[], after: readonly Place[]): RankMove[] {
  const stood = new Map(before.map((u) => [u.id, u]));
  const stands = new Set(after.map((u) => u.id));
  const moves = after.map((unit): RankMove => {
    const old = stood.get(unit.id);
    if (!old) return { id: unit.id, before: null, after: unit.place, rises: 0, isBeyondDoubt: false };
    return {
      id: unit.id,
      before: old.place,
      after: unit.place,
      rises: old.place - unit.place,
      isBeyondDoubt: isOutside(unit.place, old.rank90) && isOutside(old.place, unit.rank90),
    };
  });
  const gone = before
    .filter((u) => !stands.has(u.id))
    .map((u): RankMove => ({ id: u.id, before: u.place, after: null, rises: 0, isBeyondDoubt: false }));
  return [...moves, ...gone];
}
